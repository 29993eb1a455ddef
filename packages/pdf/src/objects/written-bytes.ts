/** Bytes that are written one after another. */
export class WrittenBytes {
  private bytes = new Uint8Array(1 << 16);
  private end = 0;

  get length(): number {
    return this.end;
  }

  /** @param text of letters below 256 */
  text(text: string): this {
    this.room(text.length);
    for (let index = 0; index < text.length; index += 1) this.bytes[this.end + index] = text.charCodeAt(index);
    this.end += text.length;
    return this;
  }

  /** These bytes, or some of them. */
  copy(from: Uint8Array, start = 0, end = from.length): this {
    this.room(end - start);
    this.bytes.set(from.subarray(start, end), this.end);
    this.end += end - start;
    return this;
  }

  /** What was written since it was last taken. */
  take(): Uint8Array {
    const taken = this.bytes.slice(0, this.end);
    this.end = 0;
    return taken;
  }

  private room(more: number): void {
    if (this.end + more <= this.bytes.length) return;
    const larger = new Uint8Array(Math.max(this.end + more, 2 * this.bytes.length));
    larger.set(this.bytes.subarray(0, this.end));
    this.bytes = larger;
  }
}
