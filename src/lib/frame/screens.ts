/** The screens of a chart. */
import Guitar from '@lucide/svelte/icons/guitar';
import LayoutGrid from '@lucide/svelte/icons/layout-grid';
import Map from '@lucide/svelte/icons/map';
import Play from '@lucide/svelte/icons/play';
import Music from '@lucide/svelte/icons/music';

export const SCREENS = [
  {
    id: 'plan',
    path: '',
    name: 'Plan',
    title: 'What to play over every chord',
    Icon: Guitar,
  },
  {
    id: 'shapes',
    path: 'shapes',
    name: 'Shapes',
    title: 'Every shape of this chord',
    Icon: LayoutGrid,
  },
  {
    id: 'region',
    path: 'region',
    name: 'Zone',
    title: 'The whole chart in one zone',
    Icon: Map,
  },
  {
    id: 'practice',
    path: 'practice',
    name: 'Practice',
    title: 'Practice sheet (Q)',
    Icon: Music,
  },
  {
    id: 'play',
    path: 'play',
    name: 'Play',
    title: 'Play it with a band (Shift P)',
    Icon: Play,
  },
] as const;

export type Screen = (typeof SCREENS)[number]['id'];
