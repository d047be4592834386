import { createRouter } from 'sv-router';

import Hang from '../stations/hang/Hang.svelte';
import Home from '../stations/start/Home.svelte';
import Lost from './Lost.svelte';

export const { p, navigate, route } = createRouter({
  '/': Home,
  '/places/new': () => import('../stations/hang/NewPlace.svelte'),
  '/hang/:place': Hang,
  '/hang/:place/round': () => import('../stations/hang/WeighRound.svelte'),
  '/hang/:place/climate': () => import('../stations/hang/Climate.svelte'),
  '/today': () => import('../stations/today/Today.svelte'),
  '/salt': () => import('../stations/salt/Salt.svelte'),
  '/salt/:id': () => import('../stations/salt/Salt.svelte'),
  '/warm': () => import('../stations/warm/Warm.svelte'),
  '/warm/:id': () => import('../stations/warm/Warm.svelte'),
  '/rest': () => import('../stations/rest/Rest.svelte'),
  '/rest/cut': () => import('../stations/rest/CutRoom.svelte'),
  '/rest/cut/:id': () => import('../stations/rest/CutRoom.svelte'),
  '/rest/stock': () => import('../stations/rest/Stock.svelte'),
  '/rest/stock/:id': () => import('../stations/rest/Stock.svelte'),
  '/rest/pack/:id': () => import('../stations/rest/PackPage.svelte'),
  '/rest/allergens': () => import('../stations/rest/Allergens.svelte'),
  '/rest/in': () => import('../stations/rest/Outside.svelte'),
  '/rest/:id': () => import('../stations/rest/Rest.svelte'),
  '/book/batch/:id': () => import('../stations/book/Story.svelte'),
  '/book/compare': () => import('../stations/book/Compare.svelte'),
  '/book/accuracy': () => import('../stations/book/Accuracy.svelte'),
  '/bench': () => import('../stations/bench/Bench.svelte'),
  '/bench/weigh/:id': () => import('../stations/bench/WeighOut.svelte'),
  '/bench/batch/:id': () => import('../stations/bench/Batch.svelte'),
  '/bench/batch/:id/against': () => import('../stations/ledger/Against.svelte'),
  '/bench/limits': () => import('../stations/bench/Limits.svelte'),
  '/bench/lot/:id': () => import('../stations/bench/Lot.svelte'),
  '/book': () => import('../stations/book/Book.svelte'),
  '/book/file': () => import('../stations/book/FileJudged.svelte'),
  '/book/changes': () => import('../stations/book/ChangesPage.svelte'),
  '/t/:tag': () => import('./TagGoto.svelte'),
  '*lost': Lost,
});
