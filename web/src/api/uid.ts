/** An identity made where something is typed or tapped: sent twice, it counts once. Works without https too. */
export const newUid = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(9)), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  );
