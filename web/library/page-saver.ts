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
  told(saving: Saving): void;
}

/**
 * Saves a page that is being written: one request at a time, each upon the version the last one made, until what was
 * typed last is stored. A page never conflicts with itself, however slowly the server answers.
 */
export class PageSaver {
  private text: string;
  private version: number;
  private unsent = false;
  private sending = false;
  private conflict: StoredPage | undefined;

  constructor(
    page: StoredPage,
    private readonly world: PageWorld,
  ) {
    this.text = page.text;
    this.version = page.version;
  }

  write(text: string): void {
    this.text = text;
    this.unsent = true;
    this.world.keep({ text, version: this.version });
    if (!this.conflict) this.world.told({ type: 'unsaved' });
  }

  async save(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    while (this.unsent && !this.conflict) {
      this.unsent = false;
      if (!this.took(this.text, await this.world.send({ text: this.text, version: this.version }))) break;
    }
    this.sending = false;
  }

  /** One's own text takes the place of theirs. */
  keepMine(): Promise<void> {
    if (this.conflict) this.version = this.conflict.version;
    this.conflict = undefined;
    this.unsent = true;
    return this.save();
  }

  /** Whether to go on. */
  private took(text: string, sent: Sent): boolean {
    // The answer to what was sent before may have been lost on the way.
    const page =
      sent.type === 'stored' ? sent.page : sent.type === 'stale' && sent.theirs.text === text ? sent.theirs : undefined;
    if (page) {
      this.version = page.version;
      this.world.keep(this.unsent ? { text: this.text, version: page.version } : undefined);
      if (!this.unsent) this.world.told({ type: 'saved' });
      return true;
    }
    this.unsent = true;
    if (sent.type === 'stale') this.world.told({ type: 'conflict', theirs: (this.conflict = sent.theirs) });
    if (sent.type === 'failed') this.world.told(sent);
    return false;
  }
}
