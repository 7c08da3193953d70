import { merge } from '@avrelle/core/study';
import type { Saving, Sent, StoredPage } from '../data/page-saver';

/** What is written and not stored yet, with what it was written upon. */
export interface NoteDraft {
  readonly base: StoredPage;
  readonly mine: string;
}

export interface NoteWorld {
  send(page: StoredPage): Promise<Sent>;
  /** Keeps what is not stored yet on this computer; undefined once it is. */
  keep(draft: NoteDraft | undefined): void;
}

/** Where the note is being written. */
export interface NoteEditing {
  /** What stands there now, where it has changed since it was last read. */
  read(): string | undefined;
  /** Brings what is shown to this. */
  show(text: string): void;
}

/**
 * Saves a note that is being written, and brings in what comes of it meanwhile: excerpts that follow their annotations,
 * another window, a folder. What was written in two places stands together (`merge`); nothing is ever asked for twice.
 */
export class NoteSaver {
  saving: Saving | undefined;
  watcher: ((saving: Saving) => void) | undefined;
  editing: NoteEditing | undefined;
  private base: StoredPage;
  private mine: string;
  private sending = false;
  /** Heard while something was on its way. */
  private heard: StoredPage | undefined;

  constructor(
    stored: StoredPage,
    begun: NoteDraft | undefined,
    private readonly world: NoteWorld,
  ) {
    this.base = begun?.base ?? stored;
    this.mine = begun?.mine ?? stored.text;
    this.take(stored);
  }

  get text(): string {
    return this.mine;
  }
  get version(): number {
    return this.base.version;
  }
  /** Whether all that was written is stored. */
  get settled(): boolean {
    return !this.sending && this.mine === this.base.text;
  }

  /** Something is being written: it is told at once, and read a moment later. */
  touch(): void {
    if (this.saving?.type !== 'unsaved' && this.saving?.type !== 'failed') this.tell({ type: 'unsaved' });
  }

  /** Takes up what was written, and keeps it on this computer. */
  read(): void {
    const text = this.editing?.read();
    if (text === undefined || text === this.mine) return;
    this.mine = text;
    this.world.keep({ base: this.base, mine: text });
    this.touch();
  }

  /** What stands on the server by now. */
  take(theirs: StoredPage): void {
    if (this.sending) this.heard = theirs;
    else if (theirs.version > this.base.version) this.join(theirs, this.base.text);
  }

  async save(): Promise<void> {
    if (this.sending) return;
    this.read();
    while (this.mine !== this.base.text) {
      this.sending = true;
      const asked = this.mine;
      const sent = await this.world.send({ text: asked, version: this.base.version });
      this.sending = false;
      if (sent.type === 'failed') return this.tell(sent);
      if (sent.type === 'stored') this.join(sent.page, asked);
      else this.join(sent.theirs, this.base.text);
      if (this.heard) this.take(this.heard);
      this.heard = undefined;
    }
    this.world.keep(undefined);
    if (this.saving) this.tell({ type: 'saved' });
  }

  /** Both what was written since `from` and what stands there now. */
  private join(theirs: StoredPage, from: string): void {
    this.read();
    const { markdown } = merge(from, this.mine, theirs.text);
    this.base = { text: theirs.text, version: theirs.version };
    if (markdown !== this.mine) {
      this.mine = markdown;
      this.editing?.show(markdown);
    }
    this.world.keep(this.mine === this.base.text ? undefined : { base: this.base, mine: this.mine });
  }

  private tell(saving: Saving): void {
    this.saving = saving;
    this.watcher?.(saving);
  }
}
