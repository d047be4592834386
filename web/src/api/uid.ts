/** An identity made where something is typed or tapped: sent twice, it counts once. Works without https too. */
export const newUid = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(9)), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  );

/** Keeps the identity of a thing until it got through: sent again it is the same, and another thing is another. */
export class Unsent {
  private what = '';
  private uid = '';

  of(what: unknown): string {
    const text = JSON.stringify(what);
    if (text !== this.what) [this.what, this.uid] = [text, newUid()];
    return this.uid;
  }

  through(): void {
    this.what = '';
  }
}
