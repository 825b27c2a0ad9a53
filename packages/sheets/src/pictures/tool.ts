/** A tool in its holder from the side, from its numbers. */
import { Tool, holderLength, holderWidth, profileOutline, segmentStarts } from '@tidypath/core';
import { Mark, Scene, Spot, polygon } from '../scene';

/** How high it is, and how wide, mm as they are. */
export const sizeOfTool = (tool: Tool): { wide: number; high: number } => ({
  wide: Math.max(holderWidth(tool.holder), tool.diameter, tool.shankDiameter),
  high: tool.stickOut + holderLength(tool.holder),
});

/**
 * A tool drawn to a scale, tip down, in the middle of its room.
 * @param scale mm on paper of each mm
 */
export function toolPicture(tool: Tool, scale: number, width: number, height: number): Scene {
  const at = (r: number, z: number): Spot => ({ x: width / 2 + r * scale, y: height - 0.5 - z * scale });
  const both = (right: [number, number][]) => [
    ...right.map(([r, z]) => at(r, z)),
    ...[...right].reverse().map(([r, z]) => at(-r, z)),
  ];
  const half = profileOutline(tool);
  const top = half[half.length - 1].z;
  const starts = segmentStarts(tool.holder);
  const marks: Mark[] = tool.holder.segments.map(({ lower, upper, length }, i) => {
    const from = tool.stickOut + starts[i];
    return polygon(
      [
        both([
          [lower / 2, from],
          [upper / 2, from + length],
        ]),
      ],
      { weight: 'thin', fill: 'middle' },
    );
  });
  const shank = tool.shankDiameter / 2;
  marks.push(
    polygon(
      [
        both([
          [shank, top],
          [shank, Math.max(top, tool.stickOut)],
        ]),
      ],
      { weight: 'thin', fill: 'light' },
    ),
    polygon([both([[0, 0], ...half.map((p): [number, number] => [p.r, p.z])])], { weight: 'plain', fill: 'paper' }),
  );
  return { width, height, marks };
}
