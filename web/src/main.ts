import './app.css';

import { mount } from 'svelte';

import App from './App.svelte';
import { shows } from './units/shows';

document.documentElement.lang = shows.language;
const target = document.getElementById('app');
if (target) mount(App, { target });
