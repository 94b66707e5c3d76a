import { describe, expect, test } from 'vitest';
import { readNumber, stepped } from './number';

const kelvin = { min: 2000, max: 50000 };
const offset = { min: -1, max: 1 };

describe('a typed number', () => {
  test.each([
    ['4500', kelvin, 4500],
    ['4,500', kelvin, 4500],
    [' 4 500 ', kelvin, 4500],
    ['-0.05', offset, -0.05],
    ['−0.05', offset, -0.05],
    ['-.05', offset, -0.05],
    ['0,85', { min: 0.1, max: 4 }, 0.85],
    ['0,125', offset, 0.125],
    ['+1', offset, 1],
    ['1.', offset, 1],
  ])('%s is read', (text, bounds, value) => {
    expect(readNumber(text, bounds)).toEqual({ value, problem: null });
  });

  test.each([
    ['', kelvin, 'Not a number'],
    ['-', offset, 'Not a number'],
    ['1e3', kelvin, 'Not a number'],
    ['0x10', kelvin, 'Not a number'],
    ['4500 K', kelvin, 'Not a number'],
    ['45', kelvin, 'From 2,000 to 50,000'],
    ['-1.01', offset, 'From -1 to 1'],
  ])('“%s” is told as what it is not', (text, bounds, problem) => {
    expect(readNumber(text, bounds)).toEqual({ value: null, problem });
  });

  test('has no fraction where there are none', () => {
    expect(readNumber('70.5', { min: 0, max: 400, whole: true })).toEqual({
      value: null,
      problem: 'Whole numbers only',
    });
  });
});

describe('a step', () => {
  test('leaves no dust of binary fractions', () => expect(stepped(0.1, 0.2, offset)).toBe(0.3));
  test('ends at the bounds', () => expect(stepped(0.995, 0.01, offset)).toBe(1));
});
