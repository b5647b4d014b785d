/** Where a file goes while it is made: piece by piece, so that a long film takes no more memory than a short one. */
export interface Sink {
  /** Puts bytes at a place of the file. They are the caller's own again once it is done. */
  write(bytes: Uint8Array<ArrayBuffer>, at: number): void | Promise<void>
}

/** Puts one piece behind the other. */
export class Appending {
  private at = 0

  constructor(private readonly sink: Sink) {}

  async write(bytes: Uint8Array<ArrayBuffer>): Promise<void> {
    const at = this.at
    this.at += bytes.length
    await this.sink.write(bytes, at)
  }
}

/** A file in memory, where there is no other place. */
export class InMemory implements Sink {
  private room = new Uint8Array(1 << 20)
  private size = 0

  write(bytes: Uint8Array, at: number): void {
    const end = at + bytes.length
    if (end > this.room.length) {
      const more = new Uint8Array(Math.max(end, 2 * this.room.length))
      more.set(this.room)
      this.room = more
    }
    this.room.set(bytes, at)
    this.size = Math.max(this.size, end)
  }

  get file(): Blob {
    return new Blob([this.room.subarray(0, this.size)])
  }
}
