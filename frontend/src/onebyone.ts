/** Pieces of work one after another: none is dropped because the one before is still on its way. */
export class OneByOne {
  #last: Promise<unknown> = Promise.resolve()

  run<Result>(work: () => Promise<Result>): Promise<Result> {
    const done = this.#last.then(work)
    this.#last = done.catch(() => null)
    return done
  }
}
