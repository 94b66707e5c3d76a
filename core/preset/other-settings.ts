/** The settings that a table of colors cannot carry. They are read, shown, kept, and left out of a bake with the reason. */
import { numberIn, type LookReference, type SettingClass, type SettingDefinition } from './kinds';

const other = (id: string, title: string, family: SettingDefinition['family'], kind: SettingClass, unit: string, low: number, high: number, neutral: number, formula: string): SettingDefinition<number> => ({ id, title, family, class: kind, unit, range: `${low}…${high}`, neutral, formula, check: numberIn(low, high) });
const words = (id: string, title: string, family: SettingDefinition['family'], kind: SettingClass, formula: string): SettingDefinition<string> => ({ id, title, family, class: kind, unit: 'name', range: 'up to 200 characters', neutral: '', formula, check: (v) => (typeof v === 'string' && v.length <= 200 ? null : 'must be a name of up to 200 characters') });

const lookReference: SettingDefinition<LookReference | null> = {
  id: 'look', title: 'Look', family: 'reference', class: 'reference', unit: 'name; %', range: 'a name, strength 0…400', neutral: null,
  formula: 'Which look the preset calls, at which strength. Resolved before a bake, or kept as a dependency.',
  check(v) { if (v === null) return null; const l = v as Partial<LookReference>; return typeof l.name === 'string' && l.name ? numberIn(0, 400)(l.strength) : 'must have a name and a strength'; },
};

export const otherSettings: SettingDefinition<never>[] = [
  other('whiteTemperature', 'White balance, temperature', 'white', 'raw', 'K', 1500, 60000, 6504, 'The temperature that the camera data are balanced for.'),
  other('whiteTint', 'White balance, tint', 'white', 'raw', '1/3000 in CIE 1960 u, v', -300, 300, 0, 'The tint that the camera data are balanced for, positive towards magenta.'),
  words('cameraProfile', 'Camera profile', 'reference', 'raw', 'The camera profile that the preset asks for.'),
  other('highlightReconstruction', 'Highlight reconstruction', 'light', 'raw', '%', 0, 100, 0, 'How far clipped camera channels are rebuilt.'),
  other('highlightRecovery', 'Highlight recovery', 'light', 'local', '%', -100, 100, 0, 'Compression of the highlights by their surroundings.'),
  other('shadowRecovery', 'Shadow recovery', 'light', 'local', '%', -100, 100, 0, 'Lifting of the shadows by their surroundings.'),
  other('localContrast', 'Local contrast', 'detail', 'local', '%', -100, 100, 0, 'Contrast over a wide neighbourhood.'),
  other('fineDetail', 'Fine detail', 'detail', 'local', '%', -100, 100, 0, 'Contrast over a narrow neighbourhood.'),
  other('haze', 'Haze', 'detail', 'local', '%', -100, 100, 0, 'Haze taken away (positive) or added.'),
  other('sharpening', 'Sharpening', 'detail', 'local', '%', 0, 300, 0, 'Edges made steeper.'),
  other('noiseLuminance', 'Noise reduction, luminance', 'detail', 'local', '%', 0, 100, 0, 'Smoothing of brightness noise.'),
  other('noiseColor', 'Noise reduction, color', 'detail', 'local', '%', 0, 100, 0, 'Smoothing of color noise.'),
  other('grain', 'Grain', 'detail', 'local', '%', 0, 100, 0, 'Added texture.'),
  other('vignette', 'Vignette', 'optics', 'position', 'EV in the corner', -4, 4, 0, 'Brightness that depends on the distance from the picture’s center.'),
  other('rotation', 'Rotation', 'frame', 'geometry', '°', -45, 45, 0, 'The picture turned about its center.'),
  words('lensCorrection', 'Lens correction', 'optics', 'geometry', 'The lens calibration that the preset asks for.'),
  lookReference as unknown as SettingDefinition<number>,
] as unknown as SettingDefinition<never>[];
