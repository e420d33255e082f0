import { describe, expect, it } from 'vitest';
import { raisedBy, type Finding } from './finding';

const finding = (id: string, severity: Finding['severity']): Finding => ({ id, severity, title: id, why: '' });

describe('what a change would raise', () => {
  it('is what is wrong or worth minding and was not so before', () => {
    const before = [finding('scale', 'mind'), finding('goal', 'good'), finding('old', 'bad')];
    const after = [finding('scale', 'mind'), finding('goal', 'bad'), finding('acid', 'mind'), finding('price', 'note')];
    expect(raisedBy(before, after).map(({ id }) => id)).toEqual(['goal', 'acid']);
  });
  it('counts what got worse, not what got better', () => {
    expect(raisedBy([finding('scale', 'mind')], [finding('scale', 'bad')])).toHaveLength(1);
    expect(raisedBy([finding('scale', 'bad')], [finding('scale', 'mind')])).toHaveLength(0);
  });
});
