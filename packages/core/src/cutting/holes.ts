/** Relations of drilling; mm, rpm, mm/min, kW. */

/** Length of a drill's point, mm: D/2 / tan(point/2). `point` in degrees, 60 to 180. */
export const pointLength = (D: number, point: number) => D / 2 / Math.tan((point * Math.PI) / 360);

/** Drilling feed, mm/min: n·fn. */
export const drillFeed = (n: number, fn: number) => n * fn;

/** Drilling power, kW: fn·vc·D·kc/240e3. Textbook relation; fn mm a turn, vc m/min. */
export const drillPower = (fn: number, vc: number, D: number, kc: number) => (fn * vc * D * kc) / 240e3;

/** Height fallen per turn of a helix, mm: π·d·tan(angle); d the path's diameter, angle in radians. */
export const helixDrop = (pathDiameter: number, angle: number) => Math.PI * pathDiameter * Math.tan(angle);
