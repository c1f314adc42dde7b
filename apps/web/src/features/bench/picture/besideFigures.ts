/** Figures of this many pictures in a row may be given up while a thing moves. */
const MOST_PASSED_OVER = 2;

interface Reading {
  done: Promise<void>;
  giveUp(): void;
}

/** Figures of the picture that followed last: what is baked and traced at rest does not wait for them. */
export class BesideFigures {
  private last: Reading | null = null;
  /** Pictures in a row whose figures were given up for the next. */
  private passedOver = 0;

  /** @param failed is told why they cannot be read, unless that keeps the picture from being made too */
  constructor(private readonly failed: (error: unknown) => void) {}

  /** Reads those of a picture that is being made. */
  begin(read: (signal: AbortSignal) => Promise<unknown>, picture: Promise<void>): void {
    const controller = new AbortController();
    const { signal } = controller;
    const settled = (error?: unknown) => {
      if (signal.aborted) return;
      if (this.last === own) this.last = null;
      this.passedOver = 0;
      if (error === undefined) return;
      picture.then(
        () => this.failed(error),
        () => undefined,
      );
    };
    const own: Reading = {
      done: read(signal).then(() => settled(), settled),
      giveUp: () => controller.abort(new Error('a newer set is there')),
    };
    this.last = own;
  }

  /** Resolves once they are read, or have failed. */
  async read(): Promise<void> {
    await this.last?.done;
  }

  /** Before the next picture: what is not read yet is given up, or waited for now and then. */
  async leave(): Promise<void> {
    const { last } = this;
    this.last = null;
    if (!last) return;
    if (this.passedOver++ < MOST_PASSED_OVER) last.giveUp();
    else await last.done;
  }
}
