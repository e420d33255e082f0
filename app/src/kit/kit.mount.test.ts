import { METRIC_UNITS } from '@yes-clear/core/quantity';
import type { Finding } from '@yes-clear/core/stage';
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import FindingsList from './FindingsList.vue';
import QuantityField from './QuantityField.vue';
import Segments from './Segments.vue';

const finding = (id: string): Finding => ({ id, severity: 'mind', title: `Title ${id}`, why: 'Because.' });

describe('findings', () => {
  const list = (count: number, open?: number) =>
    mount(FindingsList, {
      props: {
        title: 'Says',
        findings: Array.from({ length: count }, (_, i) => finding(String(i))),
        ...(open === undefined ? {} : { open }),
      },
    });
  it('the first are open, the rest behind a word that counts them', async () => {
    const shown = list(5, 3);
    expect(shown.findAll('h4').map((title) => title.text())).toEqual(['Title 0', 'Title 1', 'Title 2']);
    const more = shown.get('button.rest');
    expect(more.text()).toBe('2 more remarks');
    await more.trigger('click');
    expect(shown.findAll('h4')).toHaveLength(5);
    expect(shown.get('button.rest').text()).toBe('Fewer');
  });
  it('one more is one remark; none more asks for nothing', () => {
    expect(list(4, 3).get('button.rest').text()).toBe('1 more remark');
    expect(list(3, 3).find('button.rest').exists()).toBe(false);
    expect(list(9).findAll('h4')).toHaveLength(9);
  });
});

describe('a choice of a few', () => {
  const choices = ['a', 'b', 'c'].map((value) => ({ value, title: value.toUpperCase() }));
  const segments = (modelValue: string | null) =>
    mount(Segments, { props: { label: 'Which', choices, modelValue }, attachTo: document.body });
  it('marks the chosen one, and only it is on the way of the tab key', () => {
    const radios = segments('b').findAll('[role=radio]');
    expect(radios.map((radio) => radio.attributes('aria-checked'))).toEqual(['false', 'true', 'false']);
    expect(radios.map((radio) => radio.attributes('tabindex'))).toEqual(['-1', '0', '-1']);
  });
  it('with none chosen the first can be reached', () => {
    expect(
      segments(null)
        .findAll('[role=radio]')
        .map((radio) => radio.attributes('tabindex')),
    ).toEqual(['0', '-1', '-1']);
  });
  it('arrow keys go along and round the end', async () => {
    const shown = segments('c');
    await shown.get('[role=radiogroup]').trigger('keydown', { key: 'ArrowRight' });
    await shown.setProps({ modelValue: 'a' });
    await shown.get('[role=radiogroup]').trigger('keydown', { key: 'ArrowLeft' });
    expect(shown.emitted('update:modelValue')).toEqual([['a'], ['c']]);
  });
});

describe('the field of a quantity', () => {
  const units = METRIC_UNITS;
  const field = (props: object = {}) =>
    mount(QuantityField, { props: { label: 'Pressure', dimension: 'pressureBar' as const, units, modelValue: 4, ...props } });
  it('takes any unit, gives the canonical one', async () => {
    const shown = field();
    await shown.get('input').setValue('61 psi');
    expect((shown.emitted('update:modelValue')!.at(-1) as number[])[0]).toBeCloseTo(4.2058, 4);
  });
  it('what cannot be understood stays where it is, with the reason, and nothing is given', async () => {
    const shown = field({ high: 10 });
    await shown.get('input').setValue('12 bar');
    await nextTick();
    expect(shown.get('[role=alert]').text()).toMatch(/Pressure.*12.*10/);
    expect(shown.get('input').attributes('aria-invalid')).toBe('true');
    expect(shown.emitted('update:modelValue')).toBeUndefined();
  });
  it('may be left empty only where nobody need have measured', async () => {
    const must = field();
    await must.get('input').setValue('');
    expect(must.find('[role=alert]').exists()).toBe(true);
    const may = field({ optional: true, empty: 'by age' });
    await may.get('input').setValue('');
    expect(may.emitted('update:modelValue')).toEqual([[null]]);
    expect(may.get('input').attributes('placeholder')).toBe('by age');
  });
});

describe('a quantity typed in another unit than its field has', () => {
  const field = () =>
    mount(QuantityField, {
      props: {
        label: 'Line pressure',
        dimension: 'pressureBar',
        units: METRIC_UNITS,
        modelValue: 4,
        usual: { low: 1.5, high: 8.5, holder: 'Lines have' },
      },
    });
  it('asks which was meant, and takes the answer', async () => {
    const shown = field();
    await shown.get('input').setValue('60');
    expect(shown.get('.doubt').text()).toContain('60 bar? Lines have 1.5 to 8.5');
    await shown.get('.doubt button').trigger('click');
    const [asTyped, meant] = shown.emitted('update:modelValue')!.map(([value]) => value as number);
    expect(asTyped).toBe(60);
    expect(meant).toBeCloseTo(4.137, 3);
    expect(shown.find('.doubt').exists()).toBe(false);
  });
  it('asks nothing of a usual figure or of one with its unit', async () => {
    const shown = field();
    for (const typed of ['4.2', '60 bar']) {
      await shown.get('input').setValue(typed);
      expect(shown.find('.doubt').exists()).toBe(false);
    }
  });
});
