/**
 * CIEDE2000 color difference (ISO/CIE 11664-6), kL = kC = kH = 1.
 * After Sharma, Wu, Dalal: The CIEDE2000 Color-Difference Formula, Color Research and Application 30 (2005).
 */
const rad = Math.PI / 180;
const pow7 = 25 ** 7;

export function deltaE2000(L1: number, a1: number, b1: number, L2: number, a2: number, b2: number): number {
  const c1 = Math.hypot(a1, b1);
  const c2 = Math.hypot(a2, b2);
  const mean7 = ((c1 + c2) / 2) ** 7;
  const g = 1 + 0.5 * (1 - Math.sqrt(mean7 / (mean7 + pow7)));
  const p1 = a1 * g;
  const p2 = a2 * g;
  const C1 = Math.hypot(p1, b1);
  const C2 = Math.hypot(p2, b2);
  let h1 = C1 === 0 ? 0 : Math.atan2(b1, p1);
  let h2 = C2 === 0 ? 0 : Math.atan2(b2, p2);
  if (h1 < 0) h1 += 2 * Math.PI;
  if (h2 < 0) h2 += 2 * Math.PI;
  const dL = L2 - L1;
  const dC = C2 - C1;
  const both = C1 * C2;
  let dh = both === 0 ? 0 : h2 - h1;
  if (dh > Math.PI) dh -= 2 * Math.PI;
  else if (dh < -Math.PI) dh += 2 * Math.PI;
  const dH = 2 * Math.sqrt(both) * Math.sin(dh / 2);
  const L = (L1 + L2) / 2;
  const C = (C1 + C2) / 2;
  let h = h1 + h2;
  if (both !== 0) {
    h /= 2;
    // the mean on the shorter way around
    if (Math.abs(h1 - h2) > Math.PI) h += h < Math.PI ? Math.PI : -Math.PI;
  }
  const T =
    1 -
    0.17 * Math.cos(h - 30 * rad) +
    0.24 * Math.cos(2 * h) +
    0.32 * Math.cos(3 * h + 6 * rad) -
    0.2 * Math.cos(4 * h - 63 * rad);
  const turn = 30 * rad * Math.exp(-(((h / rad - 275) / 25) ** 2));
  const C7 = C ** 7;
  const l2 = (L - 50) ** 2;
  const sL = 1 + (0.015 * l2) / Math.sqrt(20 + l2);
  const sC = 1 + 0.045 * C;
  const sH = 1 + 0.015 * C * T;
  const rT = -Math.sin(2 * turn) * 2 * Math.sqrt(C7 / (C7 + pow7));
  const u = dL / sL;
  const v = dC / sC;
  const w = dH / sH;
  return Math.sqrt(Math.max(0, u * u + v * v + w * w + rT * v * w));
}
