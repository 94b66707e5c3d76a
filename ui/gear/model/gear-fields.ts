/** The form of a camera or a lens: what is typed, and what is sent of it. */
import type { BodyOf } from '@/core/api';

export interface GearFields {
  maker: string;
  model: string;
  /** with commas between */ names: string;
  mount: string;
  conversion: string;
  /** with commas between */ serials: string;
  /** millimeters; empty where it is not known */ sensor_width: string;
  sensor_height: string;
}

/** A camera or a lens as the studio has listed it. */
export interface KnownGear {
  maker: string;
  model: string;
  names: string[];
  mount: string;
  conversion?: string;
  serials?: string[];
  sensor_width?: number | null;
  sensor_height?: number | null;
}

const EMPTY: KnownGear = { maker: '', model: '', names: [], mount: '' };

export function fieldsOf(gear: KnownGear | null): GearFields {
  const { conversion = '', serials = [], sensor_width, sensor_height, names, ...rest } = gear ?? EMPTY;
  return {
    maker: rest.maker,
    model: rest.model,
    mount: rest.mount,
    conversion,
    names: names.join(', '),
    serials: serials.join(', '),
    sensor_width: String(sensor_width ?? ''),
    sensor_height: String(sensor_height ?? ''),
  };
}

const listed = (text: string): string[] =>
  text
    .split(',')
    .map((word) => word.trim())
    .filter(Boolean);
const millimeters = (text: string): number | null => (text.trim() === '' ? null : Number(text));

/** What is sent: a lens has no sensor and no serials. */
export function bodyOf(kind: 'camera' | 'lens', fields: GearFields): BodyOf<'POST /api/gear/cameras'> {
  const both = { maker: fields.maker, model: fields.model, names: listed(fields.names), mount: fields.mount };
  if (kind === 'lens') return both;
  return {
    ...both,
    conversion: fields.conversion,
    serials: listed(fields.serials),
    sensor_width: millimeters(fields.sensor_width),
    sensor_height: millimeters(fields.sensor_height),
  };
}
