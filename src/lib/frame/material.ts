/** Writing what is played as the player thinks of it. */
import type { Material } from '$core/lenses/material';
import { nameByParent } from '$core/lenses/modeWords';
import type { ModeNaming } from '$lib/settings/settings';
import { showSymbol } from '$lib/ui/glyphs';

/** `D♭ lydian dominant`, or `A♭ melodic minor from its fourth`. */
export const showMaterial = (material: Material, naming: ModeNaming): string =>
  showSymbol(
    naming === 'parent' && material.collection ? nameByParent(material.collection) : material.name,
  );
