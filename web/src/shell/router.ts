import { createRouter } from 'sv-router';

import Climate from '../stations/hang/Climate.svelte';
import Hang from '../stations/hang/Hang.svelte';
import Home from '../stations/start/Home.svelte';
import Lost from './Lost.svelte';

export const { p, navigate, route } = createRouter({
  '/': Home,
  '/hang/:place': Hang,
  '/hang/:place/climate': Climate,
  '*lost': Lost,
});
