// An identity made where something is typed or tapped: sent twice, it counts once.
export const newUid = (): string => crypto.randomUUID().slice(0, 18);
