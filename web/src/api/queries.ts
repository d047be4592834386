// The questions the screens ask, each with the key under which its answer is kept.
import { useTimeZone } from '../units/format';
import { inWords } from '../words/said';
import { api, take } from './client';
import type { paths } from './schema.gen';

export const keys = {
  line: ['line'] as const,
  reference: ['reference'] as const,
  deviceKinds: ['device-kinds'] as const,
  showing: ['showing'] as const,
  bench: ['bench'] as const,
  batch: (batch: number) => ['batch', batch] as const,
  ledger: (batch: number) => ['ledger', batch] as const,
  lots: ['lots'] as const,
  lot: (lot: number) => ['lot', lot] as const,
  whatIf: (batch: number, box: number | null) => ['warm', batch, 'what-if', box] as const,
  rooms: ['room'] as const,
  pieces: ['piece'] as const,
  waiting: ['waiting'] as const,
  mendings: ['mending'] as const,
  round: (place: number) => ['round', place] as const,
  devices: ['devices'] as const,
  broker: ['broker'] as const,
  people: ['people'] as const,
  signIns: ['sign-ins'] as const,
  tablets: ['tablets'] as const,
  copies: ['copies'] as const,
  alarms: ['alarms'] as const,
  plansAgainst: ['plans-against'] as const,
  limits: ['limits'] as const,
  salt: ['salt'] as const,
  saltPiece: (piece: number) => ['salt', piece] as const,
  rest: ['rest'] as const,
  restPiece: (piece: number) => ['rest', piece] as const,
  cut: ['cut'] as const,
  cutPiece: (piece: number) => ['cut', piece] as const,
  stock: ['stock'] as const,
  packing: (piece: number) => ['packing', piece] as const,
  allergens: ['allergens'] as const,
  today: ['today'] as const,
  ahead: ['ahead'] as const,
  recipes: ['recipes'] as const,
  warm: ['warm'] as const,
  warmBatch: (batch: number) => ['warm', batch] as const,
  room: (place: number) => ['room', place] as const,
  piece: (piece: number) => ['piece', piece] as const,
  /** What is worked out about a piece on demand. */
  told: ['told'] as const,
  explained: (piece: number) => ['told', piece, 'explained'] as const,
  inside: (piece: number, at: string | null) => ['told', piece, 'inside', at] as const,
};

export const lineQuery = () => ({
  queryKey: keys.line,
  queryFn: async () => {
    const line = await take(api.GET('/api/line'));
    // every moment is shown in the workshop's zone, from the first answer on
    if (line.workshop) useTimeZone(line.workshop.time_zone);
    return line;
  },
  refetchInterval: 30_000,
});

/** What the Bench offers to pick from: it does not change while the page is open. */
export const referenceQuery = () => ({
  queryKey: keys.reference,
  staleTime: Infinity,
  queryFn: async () => inWords(await take(api.GET('/api/bench/reference'))),
});

export const limitsQuery = () => ({
  queryKey: keys.limits,
  queryFn: async () => inWords(await take(api.GET('/api/limits'))),
});

export const recipesQuery = () => ({
  queryKey: keys.recipes,
  queryFn: () => take(api.GET('/api/recipes')),
});

type Drawer = NonNullable<NonNullable<paths['/api/book']['get']['parameters']['query']>['drawer']>;
/** Batches of the Book by words and drawer, the latest so many where a number is given. */
export const batchesQuery = (words: string, drawer: Drawer, most?: number) => ({
  queryKey: ['book', words, drawer, most ?? null] as const,
  queryFn: () => take(api.GET('/api/book', { params: { query: { words, drawer, most } } })),
});

/** The kinds of devices there are: they do not change while the page is open. */
export const kindsQuery = () => ({
  queryKey: keys.deviceKinds,
  queryFn: () => take(api.GET('/api/devices/kinds')),
  staleTime: Infinity,
});

/** What scales and meters show now. Told by the server when they send; asked for now and then where nobody is told. */
export const showingQuery = () => ({
  queryKey: keys.showing,
  queryFn: () => take(api.GET('/api/devices/showing')),
  refetchInterval: 10_000,
  retry: false,
});

/** What the air usually is in each kind of place: it does not change while the page is open. */
export const usualAirQuery = () => ({
  queryKey: ['usual-air'],
  queryFn: () => take(api.GET('/api/usual-air')),
  staleTime: Infinity,
});

export const restQuery = () => ({
  queryKey: keys.rest,
  queryFn: () => take(api.GET('/api/rest')),
  refetchInterval: 120_000,
});

export const restPieceQuery = (piece: number) => ({
  queryKey: keys.restPiece(piece),
  queryFn: () => take(api.GET('/api/rest/{piece_id}', { params: { path: { piece_id: piece } } })),
});

export const cutQuery = () => ({
  queryKey: keys.cut,
  queryFn: () => take(api.GET('/api/cut')),
});

export const cutPieceQuery = (piece: number) => ({
  queryKey: keys.cutPiece(piece),
  queryFn: () => take(api.GET('/api/pieces/{piece_id}/cut', { params: { path: { piece_id: piece } } })),
});

export const stockQuery = () => ({
  queryKey: keys.stock,
  queryFn: () => take(api.GET('/api/stock')),
});

export const packingQuery = (piece: number) => ({
  queryKey: keys.packing(piece),
  queryFn: () => take(api.GET('/api/pieces/{piece_id}/packs', { params: { path: { piece_id: piece } } })),
});

export const lotsOfPieceQuery = (piece: number) => ({
  queryKey: ['lots of', piece] as const,
  queryFn: () => take(api.GET('/api/pieces/{piece_id}/lots', { params: { path: { piece_id: piece } } })),
});

export const labelQuery = (pack: number | null) => ({
  queryKey: ['label of', pack] as const,
  queryFn: () => take(api.GET('/api/packs/{pack_id}/label', { params: { path: { pack_id: pack ?? 0 } } })),
  enabled: pack !== null,
});

export const findQuery = (words: string) => ({
  queryKey: ['find', words] as const,
  queryFn: () => take(api.GET('/api/find', { params: { query: { words } } })),
  enabled: words.length > 1,
});

export const storyQuery = (batch: number) => ({
  queryKey: ['story', batch] as const,
  queryFn: () => take(api.GET('/api/batches/{batch_id}/story', { params: { path: { batch_id: batch } } })),
});

export const allergensQuery = () => ({
  queryKey: keys.allergens,
  queryFn: () => take(api.GET('/api/allergens')),
});

/** An answer with dates that are being made anew is asked for again soon: who told that they are may not have been heard. */
const SOON_MS = 2_000;
interface WithDates {
  state: { data?: { dates_being_made: boolean } };
}
const soonIfOld =
  (otherwise: number | false) =>
  ({ state }: WithDates): number | false =>
    state.data?.dates_being_made ? SOON_MS : otherwise;

export const roomQuery = (place: number) => ({
  queryKey: keys.room(place),
  queryFn: () => take(api.GET('/api/places/{place_id}/room', { params: { path: { place_id: place } } })),
  refetchInterval: soonIfOld(120_000),
});

export const pieceQuery = (piece: number) => ({
  queryKey: keys.piece(piece),
  queryFn: () => take(api.GET('/api/pieces/{piece_id}', { params: { path: { piece_id: piece } } })),
  refetchInterval: soonIfOld(false),
});

export const explainedQuery = (piece: number) => ({
  queryKey: keys.explained(piece),
  queryFn: () => take(api.GET('/api/pieces/{piece_id}/explained', { params: { path: { piece_id: piece } } })),
});

/** The inside at a time; now when `at` is null. */
export const insideQuery = (piece: number, at: string | null) => ({
  queryKey: keys.inside(piece, at),
  queryFn: () =>
    take(
      api.GET('/api/pieces/{piece_id}/inside', {
        params: { path: { piece_id: piece }, query: at === null ? {} : { at } },
      }),
    ),
});

export const saltQuery = () => ({
  queryKey: keys.salt,
  queryFn: async () => inWords(await take(api.GET('/api/salt'))),
  refetchInterval: 120_000,
});

export const saltPieceQuery = (piece: number) => ({
  queryKey: keys.saltPiece(piece),
  queryFn: () => take(api.GET('/api/salt/{piece_id}', { params: { path: { piece_id: piece } } })),
});

export const ledgerQuery = (batch: number) => ({
  queryKey: keys.ledger(batch),
  queryFn: () => take(api.GET('/api/batches/{batch_id}/hurdles', { params: { path: { batch_id: batch } } })),
});

export const todayQuery = () => ({
  queryKey: keys.today,
  queryFn: () => take(api.GET('/api/today')),
  refetchInterval: 120_000,
});

export const warmQuery = () => ({
  queryKey: keys.warm,
  queryFn: () => take(api.GET('/api/warm')),
  refetchInterval: 60_000,
});

export const warmBatchQuery = (batch: number) => ({
  queryKey: keys.warmBatch(batch),
  queryFn: () => take(api.GET('/api/warm/{batch_id}', { params: { path: { batch_id: batch } } })),
  refetchInterval: 60_000,
});
