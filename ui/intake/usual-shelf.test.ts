import { expect, test } from 'vitest';
import { usualShelf } from './usual-shelf';

const shelves = [{ id: 'h', name: 'House looks' }, { id: 'f', name: 'Fathom Color' }, { id: 's', name: 'Fathom Color, stage set' }, { id: 'c', name: 'Camera profiles' }];
test('a delivery is offered the shelf that its name names, the closest of them', () => { expect(usualShelf(shelves, 'Fathom Color - Stage set.zip')).toBe('s'); expect(usualShelf(shelves, 'Fathom Color - Kiln.zip')).toBe('f'); });
test('otherwise the last; without shelves, none', () => { expect(usualShelf(shelves, 'Autumn.zip')).toBe('c'); expect(usualShelf([], 'Autumn.zip')).toBeNull(); expect(usualShelf([{ id: 'x', name: '—' }], 'Autumn')).toBe('x'); });
