import { Spot, care, note, stop } from './words';

/** Findings of drawings and meshes that are opened. */
export const DRAWING = {
  gap: care<{ width: number; near: Spot }>(
    (d, say) => `Two ends stay ${say.mm(d.width, 3)} apart at ${say.at(d.near, 2)}`,
    'Close it with a straight, or mend the drawing',
  ),
  'dxf-broken': stop<{ line: number; text: string }>(
    (d) => `Line ${d.line} should hold a group code but reads “${d.text}”`,
    'Save the drawing again as ASCII DXF; what came before this line was read',
  ),
  'dxf-cut-short': stop(
    'The file ends in the middle of a section: part of the drawing is missing',
    'Get the whole file again; what stands before its end was read',
  ),
  'dxf-no-end': care(
    'The file has no end mark, though its last section is whole',
    'Check that the whole drawing arrived; save it again if something is missing',
  ),
  'dxf-skipped': note<{ type: string; count: number }>(
    (d) => `${d.count === 1 ? `A ${d.type} was` : `${d.count} x ${d.type} were`} left out: no flat curve`,
    'Redraw it with lines and arcs if it matters',
  ),
  'svg-broken': stop<{ line: number; why: string }>(
    (d) => `Line ${d.line} is not as an SVG file has it: ${d.why}`,
    'Save the drawing again; what came before this line was read',
  ),
  'svg-path': care<{ line: number; why: string }>(
    (d) => `The path in line ${d.line} cannot be read to its end: ${d.why}`,
    'Redraw this curve; what came before the fault was read',
  ),
  'svg-skipped': note<{ type: string; count: number }>(
    (d) => `${d.count === 1 ? `A ${d.type} was` : `${d.count} x ${d.type} were`} left out: no curve`,
    'Turn text into paths before saving, or redraw it with lines and arcs',
  ),
  'svg-too-many': stop<{ millions: number }>(
    (d) => `The drawing holds more than ${d.millions} million elements and corners; nothing was taken`,
    'Split the drawing, or use fewer copies in it',
  ),
  'svg-empty': stop('There is no curve in this SVG file', 'Save the drawing with its paths'),
  'drawn-twice': care<{ count: number; near: Spot; layer: string }>(
    (d, say) =>
      `${d.count === 1 ? 'A curve lies' : `${d.count} curves lie`} twice in the same place on layer ${d.layer}, first at ${say.at(d.near, 2)}; each was taken once`,
    'Nothing needs to be done; clean the drawing to be rid of this',
  ),
  'chain-too-long': stop<{ corners: number; most: number; near: Spot; layer: string }>(
    (d, say) =>
      `A line at ${say.at(d.near, 2)} on layer ${d.layer} has ${d.corners} corners; a job holds ${d.most} in one, and it was left out`,
    'Draw it with arcs or fewer points',
  ),
  'curves-branch': care<{ count: number; near: Spot; layer: string }>(
    (d, say) =>
      `More than two ends meet at ${say.at(d.near, 2)} on layer ${d.layer}${d.count > 1 ? ` and in ${d.count - 1} other places` : ''}: which way an outline goes on there was guessed`,
    'Look at the outlines there, or take away what does not belong to them',
  ),
  'dxf-curve': care<{ type: string; why: string }>((d) => `A ${d.type} cannot be read: ${d.why}`, 'Redraw this curve'),
  'dxf-block-missing': care<{ block: string }>(
    (d) => `The block “${d.block}” is used but not in the file`,
    'Save the drawing with its blocks, or break them up first',
  ),
  'dxf-block-place': care<{ block: string; why: string }>(
    (d) => `The block “${d.block}” cannot be placed: ${d.why}`,
    'Break the block up, or save the drawing again',
  ),
  'dxf-blocks-nested': care<{ deepest: number }>(
    (d) => `Blocks are nested more than ${d.deepest} deep, or within themselves`,
    'Break the blocks up',
  ),
  'dxf-too-large': stop('The file is larger than 64 MB', 'Split the drawing'),
  'dxf-binary': stop('This is a binary file', 'Save the drawing as ASCII DXF'),
  'dxf-too-many': stop<{ millions: number }>(
    (d) =>
      `The drawing holds more than ${d.millions} million curves and corners, its blocks as often as they are repeated; nothing was taken`,
    'Split the drawing, or break up the blocks that repeat others',
  ),
  'dxf-empty': stop(
    'No curve could be read from this file',
    'Check that it is an ASCII DXF with lines, arcs, circles, polylines, ellipses or splines',
  ),
  'mesh-large': stop<{ most: number }>(
    (d) => `The mesh has more than ${d.most} triangles`,
    'Make it coarser and try again',
  ),
  'mesh-unreadable': stop('The file is no STL mesh that can be read', 'Save it as STL, binary or text'),
  'mesh-cut-short': stop<{ line: number }>(
    (d) => `The mesh ends in the middle, ${d.line ? `on line ${d.line}` : 'before its last triangle'}`,
    'Save or fetch the file once more; nothing of it was taken in',
  ),
  'mesh-flat': stop('The mesh is flat', 'Save a solid, in mm'),
  'mesh-tangled': stop('The mesh lies over itself again and again', 'Save one plain solid'),
  'mesh-open': care(
    'The mesh is not closed: where it is open, what lies between its faces is guessed',
    'Mend the mesh, or look at the stock closely',
  ),
};
