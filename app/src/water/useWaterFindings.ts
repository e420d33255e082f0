import { THIN, type UnitPreference } from '@yes-clear/core/quantity';
import { words, type Finding } from '@yes-clear/core/train';
import { calciteState, settleWater, type CompletedWater } from '@yes-clear/core/water';

/** What a tap water means before anything is done to it. */
export function waterFindings(completed: CompletedWater, preference: UnitPreference): Finding[] {
  const { water, origins, warning } = completed;
  const state = settleWater(water);
  if (!state.ok) return [{ id: 'error', severity: 'bad', title: 'This water cannot be computed', why: state.error.message }];
  const say = words(preference);
  const found: Finding[] = [];
  if (warning !== null) found.push({ id: 'warning', severity: 'mind', title: 'These numbers only just fit one water', why: warning });
  const shares = Object.values(origins).filter((origin) => origin === 'assumed').length;
  const measured = [
    origins.Ca === 'derived' ? 'hardness' : '',
    origins.alkalinity === 'measured' ? 'alkalinity' : '',
    origins.pH === 'measured' ? 'pH' : '',
  ].filter(Boolean);
  found.push({
    id: 'sure',
    severity: measured.length >= 2 ? 'good' : 'note',
    title: measured.length === 0 ? `1 reading, everything else assumed` : `Known: meter reading, ${measured.join(', ')}`,
    why:
      measured.length === 0
        ? 'The make-up follows the kind of supply. A drop kit for hardness and alkalinity fixes most of it.'
        : `${shares} of ${Object.keys(origins).length} values are still assumed from the kind of supply.`,
  });
  found.push({
    id: 'strength',
    severity: 'note',
    title: `${say.water(state.value.ec25UScm)}, about ${Math.round(state.value.tdsMgL)}${THIN}mg/L dissolved`,
    why: `pH ${state.value.pH.toFixed(1)} at ${say.of(water.temperatureC, 'temperatureC')}, ${say.mgL(state.value.co2MgL)} of dissolved CO₂, which passes a membrane and uses up resin.`,
  });
  const cold = calciteState(water, water.temperatureC);
  const hot = calciteState(water, 60);
  if (cold.ok && hot.ok) {
    const eager = cold.value.saturationIndex;
    const settles = hot.value.precipitationMgL;
    found.push({
      id: 'scale',
      severity: eager > 0 ? 'mind' : 'note',
      title: `Calcite index ${say.index(eager)} as it comes, ${say.index(hot.value.saturationIndex)} at ${say.of(60, 'temperatureC')}`,
      why:
        settles > 0
          ? `Heated to ${say.of(60, 'temperatureC')} it drops up to ${say.mgL(settles)} of scale. Waste of a membrane is stronger still.`
          : 'It dissolves lime rather than dropping it.',
    });
  }
  const { chlorine, chloramine } = water.mgL;
  if (chloramine > 0)
    found.push({
      id: 'chloramine',
      severity: 'mind',
      title: `Chloramine ${say.mgL(chloramine)} needs more carbon`,
      why: `Carbon splits it and leaves up to ${say.mgL((chloramine * 14.007) / 70.906)} of ammonia nitrogen, part of which passes the membrane.`,
    });
  else if (chlorine > 0)
    found.push({
      id: 'chlorine',
      severity: 'note',
      title: `Chlorine ${say.mgL(chlorine)} must go before the membrane`,
      why: 'A carbon block of the usual size takes it in seconds.',
    });
  return found;
}
