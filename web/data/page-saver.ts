/** A page as it stands on the server. */
export interface StoredPage {
  readonly text: string;
  readonly version: number;
}

export type Saving =
  | { readonly type: 'unsaved' }
  | { readonly type: 'saved' }
  /** Somebody, or another window, wrote there meanwhile: nothing is sent until `keepMine`. */
  | { readonly type: 'conflict'; readonly theirs: StoredPage }
  /** Not sent; `offline` when only the connection is missing. */
  | { readonly type: 'failed'; readonly offline: boolean; readonly words: string };

export type Sent =
  | { readonly type: 'stored'; readonly page: StoredPage }
  | { readonly type: 'stale'; readonly theirs: StoredPage }
  | { readonly type: 'failed'; readonly offline: boolean; readonly words: string };

export interface PageWorld {
  send(page: StoredPage): Promise<Sent>;
  /** Keeps what is not saved yet on this computer, with the version it was written upon; undefined once it is. */
  keep(unsaved: StoredPage | undefined): void;
}

/**
 * Saves a page that is being written: one request at a time, each upon the version the last one made, until what was
 * typed last is stored. A page never conflicts with itself, however slowly the server answers, also when one leaves it
 * and comes back meanwhile: what is not settled is taken up again.
 */
export class PageSaver {
  /** How it stands; undefined before anything was written. */
  saving: Saving | undefined;
  /** Told of every change of that, while somebody looks. */
  watcher: ((saving: Saving) => void) | undefined;
  private unsent = false;
  private sending = false;
  private conflict: StoredPage | undefined;

  private now: StoredPage;

  constructor(
    { text, version }: StoredPage,
    private readonly world: PageWorld,
  ) {
    this.now = { text, version };
  }

  get text(): string {
    return this.now.text;
  }

  /** Whether all that was written is stored. */
  get settled(): boolean {
    return !this.unsent && !this.sending && !this.conflict;
  }

  /** Goes on from what somebody else stored; nothing of one's own may be on its way. True where it is newer. */
  take({ text, version }: StoredPage): boolean {
    if (!this.settled || version <= this.now.version) return false;
    this.now = { text, version };
    return true;
  }

  write(text: string): void {
    this.now = { ...this.now, text };
    this.unsent = true;
    this.world.keep(this.now);
    if (!this.conflict) this.tell({ type: 'unsaved' });
  }

  async save(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    while (this.unsent && !this.conflict) {
      this.unsent = false;
      const asked = this.now;
      if (!this.took(asked.text, await this.world.send(asked))) break;
    }
    this.sending = false;
  }

  /** One's own text takes the place of theirs. */
  keepMine(): Promise<void> {
    if (this.conflict) this.now = { ...this.now, version: this.conflict.version };
    this.conflict = undefined;
    this.unsent = true;
    return this.save();
  }

  /** Whether to go on. */
  private took(text: string, sent: Sent): boolean {
    const page = storedAs(text, sent);
    if (page) {
      this.now = { ...this.now, version: page.version };
      this.world.keep(this.unsent ? this.now : undefined);
      if (!this.unsent) this.tell({ type: 'saved' });
      return true;
    }
    this.unsent = true;
    if (sent.type === 'stale') {
      this.conflict = sent.theirs;
      this.tell({ type: 'conflict', theirs: sent.theirs });
    } else if (sent.type === 'failed') this.tell(sent);
    return false;
  }

  private tell(saving: Saving): void {
    this.saving = saving;
    this.watcher?.(saving);
  }
}

/** The page that holds what was sent; undefined where none does. */
function storedAs(text: string, sent: Sent) {
  if (sent.type === 'stored') return sent.page;
  // The answer to what was sent before may have been lost on the way.
  return sent.type === 'stale' && sent.theirs.text === text ? sent.theirs : undefined;
}
