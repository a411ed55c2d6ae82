/** What is played on the stage, as the log has it. */
import { FREE } from '$core/log/stints';
import type { Playing } from '$lib/log/going';
import { sizeOf } from '$lib/study/loops';
import type { Study } from '$lib/study/study.svelte';
import type { Stage } from '$lib/stage/stage.svelte';

export function stageStint(study: Study, stage: Stage): Playing | null {
  if (!stage.playing) return null;
  const { chart, zone, loop } = study;
  const { line } = stage.settings;
  return {
    chart: study.id,
    exercise: stage.lines.kept ? 'sheet' : line === 'none' ? FREE : line,
    zone: { low: zone.low, high: zone.high },
    extent: (chart && sizeOf(chart, stage.standing.index, loop)) ?? 'form',
    tempo: stage.tempo,
  };
}
