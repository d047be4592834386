// Sentences that the server sends as a code with its values. A test holds this catalogue to the server's list of codes.
import type { Schema } from '../api/client';
import { gramsAsTyped, weekdayAndYear } from '../units/format';
import fromServer from './ledger.en.json';
import { ledger } from './en.ledger';

type Values = Schema['SaidOut']['values'];

const when = (s: Values[string] | undefined): string => weekdayAndYear(new Date(Number(s) * 1000));
const g = (value: Values[string] | undefined): string => gramsAsTyped(Number(value));
const tags = (v: Values): string => (v.more ? `${v.tags} and ${v.more} more` : `${v.tags}`);
const named = (names: Record<string, string>, of: Values[string] | undefined): string =>
  names[String(of)] ?? String(of).replace(/_/g, ' ');
const hurdle = (of: Values[string] | undefined): string => named(ledger.names, of);
const state = (of: Values[string] | undefined): string => named(ledger.states, of);

const sentences: Record<string, (v: Values) => string> = {
  'ask.ahead': (v) =>
    `${when(v.at_s)} is still to come: it is ${when(v.now_s)} here. Give the time it was, or count it as now`,
  'ask.long_ago': (v) => `${when(v.at_s)} is years ago: is the year right?`,
  'ask.hung_before_made': (v) =>
    `${v.tag}: its batch was noted as made on ${when(v.made_s)}, after that. Was the batch noted late?`,
  'ask.hung_in_the_warm': (v) =>
    `${v.tag}: its batch was in the warm until ${when(v.until_s)}. Did it hang earlier?`,
  'ask.weighed_after_down': (v) =>
    `${v.tag} was weighed on ${when(v.weighed_s)}, after that. Did it come down earlier?`,
  'ask.salt_gained': (v) =>
    `${v.tag} went in with ${g(v.raw_g)} and now shows ${g(v.gross_g)}, where ${g(v.low_g)}–${g(v.high_g)} is expected: look at the zero of the scale, wipe off salt and spice, weigh again`,
  'ask.salt_weight': (v) =>
    `${v.tag} shows ${g(v.gross_g)}, where ${g(v.low_g)}–${g(v.high_g)} is expected: weigh again`,
  'ask.sample_fahrenheit': (v) =>
    `a sample of ${v.sample_c} °C? In degrees Fahrenheit that is ${v.meant_c} °C`,
  'ask.ph_slip': (v) => `pH ${v.ph} cannot be: ${v.meant_ph}?`,
  'ask.ph_impossible': (v) => `pH ${v.ph} cannot be in meat: look at the meter, rinse it, measure again`,
  'ask.ph_high': (v) =>
    `pH ${v.ph} is far above the ${v.low_ph}–${v.high_ph} expected: stir the pinch, rinse, measure again`,
  'ask.ph_low': (v) =>
    `pH ${v.ph} is far below the ${v.low_ph}–${v.high_ph} expected: rinse the electrode, measure again`,
  'slip.swapped': (v) => `expected about ${g(v.expected_g)}; digits swapped? ${g(v.meant_g)}`,
  'slip.missing': (v) => `expected about ${g(v.expected_g)}; a digit missing?`,
  'slip.extra': (v) => `expected about ${g(v.expected_g)}; a digit too many?`,
  'slip.more': (v) => `expected about ${g(v.expected_g)}; ${v.percent} % more. Another piece, or the scale?`,
  'slip.less': (v) => `expected about ${g(v.expected_g)}; ${v.percent} % less. Another piece, or the scale?`,
  'slip.over_start': (v) =>
    `${g(v.more_g)} more than the ${g(v.start_g)} when it was hung. Tare, scale, or another piece?`,
  'slip.gained': (v) =>
    `heavier than the ${g(v.before_g)} before: pieces do not gain weight. Tare, scale, or another piece?`,
  'against.never_weighed': (v) => `it was never weighed: the tag wants ${g(v.tag_g)}`,
  'against.over_target': (v) => `${g(v.gross_g)} on the scale, the tag wants ${g(v.tag_g)}`,
  'against.doubt': (v) => `its last weight, ${g(v.gross_g)}, is in doubt: weigh it again`,
  'against.no_record': () =>
    'nothing is recorded of its salt and its cure: whether the hurdles are passed is not known',
  'against.hurdle': (v) => `${hurdle(v.hurdle)}: ${state(v.state)}`,
  'today.product': (v) => `${v.product}`,
  'today.weigh_out': (v) => `Go on weighing out ${v.product}`,
  'today.things_left': (v) => `${v.left} still to weigh`,
  'today.hang': (v) => `Hang ${v.batch}: ${tags(v)}`,
  'today.into_salt': (v) => `Put ${v.batch} in salt`,
  'today.decide': (v) => `${v.tag} is down: say what becomes of it`,
  'today.case': (v) => `Dry, case and tag ${v.tag}`,
  'today.salt_turn': (v) => `Turn and massage ${tags(v)}`,
  'today.salt_drain': (v) => `Pour off the brine of ${tags(v)}`,
  'today.salt_rub': (v) => `Rub ${tags(v)} again where it is wet`,
  'today.salt_check': (v) => `Look at ${tags(v)}`,
  'today.out_of_salt': (v) => `Take ${v.tag} out of the salt`,
  'today.declare_warm': (v) => `Say where ${v.batch} is warm, or that it hangs cold`,
  'today.over_allowance': (v) => `${v.batch}: over the allowance, not soured: hold it or throw it away`,
  'today.measure_ph': (v) => `Measure the pH of ${v.batch}`,
  'today.warm_spray': (v) => `Spray ${v.batch} with water`,
  'today.warm_cool': (v) => `${v.batch} is sour enough: cool it`,
  'today.warm_mould': (v) => `Sow mould on ${v.batch}, or wipe it with vinegar`,
  'today.warm_hang': (v) => `${v.batch} may go to the hook`,
  'today.box_at': (v) => `${v.product}, box at ${v.rh_percent} %`,
  'today.outage_warm': (v) => `${v.place} was too warm for ${v.hours} h: look at what was in it`,
  'today.outage_cold': (v) => `${v.place} was too cold for ${v.hours} h: look at what was in it`,
  'today.outage_damp': (v) => `${v.place} was too damp for ${v.hours} h: look at what was in it`,
  'today.outage_dry': (v) => `${v.place} was too dry for ${v.hours} h: look at what was in it`,
  'today.off_c': (v) => `up to ${v.worst} °C off its set point`,
  'today.off_rh': (v) => `up to ${v.worst} points off its set point`,
  'today.sensor': (v) => `Look at the sensor of ${v.place}`,
  'today.silent_h': (v) => `silent for ${v.hours} h`,
  'today.silent_d': (v) => `silent for ${v.days} days`,
  'today.turn': (v) => `Turn end for end ${tags(v)}`,
  'today.look_at_coat': (v) => `Look for cracks in the coat of ${tags(v)}, without moving it`,
  'today.day_of': (v) => `${v.product}, day ${v.day} of ${v.days}`,
  'today.swap': (v) => `${v.one} and ${v.other} change places`,
  'today.swap_blind': (v) =>
    `rod ${v.rod} hook ${v.hook}; rod ${v.other_rod} hook ${v.other_hook}; nobody knows yet which gets more air`,
  'today.swap_air': (v) =>
    `rod ${v.rod} hook ${v.hook}, ${v.air} × the air; rod ${v.other_rod} hook ${v.other_hook}, ${v.other_air} × the air`,
  'today.air_damper': (v) =>
    `The air of ${v.place} is ${v.points} points damper than in the two weeks before`,
  'today.air_drier': (v) => `The air of ${v.place} is ${v.points} points drier than in the two weeks before`,
  'today.air_warmer': (v) => `The air of ${v.place} is ${v.by_c} °C warmer than in the two weeks before`,
  'today.air_colder': (v) => `The air of ${v.place} is ${v.by_c} °C colder than in the two weeks before`,
  'today.air_damper_warmer': (v) =>
    `The air of ${v.place} is ${v.points} points damper and ${v.by_c} °C warmer than in the two weeks before`,
  'today.air_damper_colder': (v) =>
    `The air of ${v.place} is ${v.points} points damper and ${v.by_c} °C colder than in the two weeks before`,
  'today.air_drier_warmer': (v) =>
    `The air of ${v.place} is ${v.points} points drier and ${v.by_c} °C warmer than in the two weeks before`,
  'today.air_drier_colder': (v) =>
    `The air of ${v.place} is ${v.points} points drier and ${v.by_c} °C colder than in the two weeks before`,
  'today.all_feel_it': (v) => `all ${v.pieces} pieces feel it, not one of them alone`,
  'today.over': (v) => `Past the target on the scale, take down: ${tags(v)}`,
  'today.ready': (v) => `Ready by weight, feel and take down: ${tags(v)}`,
  'today.likely': (v) => `Likely ready, weigh: ${tags(v)}`,
  'today.fast': (v) => `Too fast, move or slow the air: ${tags(v)}`,
  'today.doubt': (v) => `A weight in doubt, weigh again: ${tags(v)}`,
  'today.weigh': (v) => `Worth weighing: ${tags(v)}`,
  'today.soon': (v) => `${v.tag} near its target: weigh it`,
  'cost.as_said': (v) => `${v.text}`,
  'cost.meat_warms': () => `the meat warms while it waits`,
  'cost.not_known_until_hung': () => `nobody knows how they dry until they hang`,
  'cost.raw_meat': () => `raw meat without salt`,
  'cost.dries_on': () => `it dries on where it lies, and nobody counts it`,
  'cost.wet_surface': () => `a wet surface grows slime`,
  'cost.salts_more': () => `every extra day salts more`,
  'cost.nothing_salt': () => `nothing: it cannot oversalt`,
  'cost.little_saltier': () => `a little saltier`,
  'cost.degree_hours_uncounted': () => `its degree-hours are not counted`,
  'cost.lost': () => `nothing brings it back`,
  'cost.allowance_runs': () => `the allowance runs on without anybody knowing`,
  'cost.outage': () => `warm meat in salt or a wet chamber does not wait`,
  'cost.unseen': () => `a fault of the place would go unseen, and cold while curing cannot be shown`,
  'cost.crooked': () => `they dry crooked, and heavier at the lower end`,
  'cost.coat_cracks': () => `a crack that is not patched in the first days stays open`,
  'cost.one_side_ahead': () => `one side of the room runs ahead of the other`,
  'cost.air_shift': () => `every date moves, and rings close or slime begins`,
  'cost.over': () => `weight and texture go on leaving`,
  'cost.ready': () => `about a third of a percent a day`,
  'cost.likely': () => `it may be past its target already, and only the scale can say so`,
  'cost.fast': () => `a dry ring closes while it waits`,
  'cost.doubt': () => `it meets no target, and its date leans on its mates meanwhile`,
  'cost.weigh': () => `the window stays wide`,
  'cost.overshoot': () => `overshoot costs weight and texture`,
};

// The ledger's sentences are said once, in the catalogue of the server: here their values get their units
const told: Record<string, string> = fromServer;
function filled(template: string, v: Values): string {
  return template.replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = v[name];
    if (typeof value !== 'number') return String(value ?? '');
    return name.endsWith('_s') ? when(value) : name.endsWith('_g') ? g(value) : String(value);
  });
}

/** The codes that have a sentence here. */
export const codes = [...Object.keys(sentences), ...Object.keys(told)];

/** A sentence on its own: begun with a capital, but for pH, and ended with a stop where it has none. */
export function whole(text: string): string {
  const begun = text.startsWith('pH') ? text : text.charAt(0).toUpperCase() + text.slice(1);
  return /[.?!:]$/.test(begun) ? begun : `${begun}.`;
}

/** A sentence in words; a code from a newer server is shown as it is rather than nothing. */
export const said = (of: Schema['SaidOut']): string =>
  sentences[of.code]?.(of.values) ?? (told[of.code] ? filled(told[of.code] ?? '', of.values) : of.code);
