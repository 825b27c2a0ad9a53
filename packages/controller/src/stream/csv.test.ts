import { StreamFault, readStream, streamCsv } from './csv';

const ROWS = [
  { t: 0, x: 1, y: 2.5, z: -3.125, load: 40.5, vibration: 0.12 },
  { t: 0.1, x: 1.5, y: 2.5, z: -3.125, load: 41, vibration: 3 },
];
const HEAD = 't_s,x_mm,y_mm,z_mm,load_pct,vib_um';

test('what is written is read again; columns in any order, others left alone', () => {
  expect(readStream(streamCsv(ROWS))).toEqual(ROWS);
  expect(readStream('load_pct,t_s,x_mm,y_mm,z_mm,vib_um,note\r\n5,0,1,2,3,4,hello\r\n')).toEqual([
    { t: 0, x: 1, y: 2, z: 3, load: 5, vibration: 4 },
  ]);
});

test.each([
  ['t_s,x_mm,y_mm,z_mm,load_pct\n0,1,2,3,4', 1, /no column vib_um/],
  [`${HEAD}\n0,1,2,3,4,5\n0,1,2,3,4,5`, 3, /Time goes from 0 to 0 s/],
  [`${HEAD}\n0,1,2,3,4,5\n1,1,2,3,4,5\n0.5,1,2,3,4,5`, 4, /Time goes from 1 to 0.5/],
  [`${HEAD}\n0,1,2,x,4,5`, 2, /“x” is no number for z_mm/],
  [`${HEAD}\n0,1,2,3,4`, 2, /“” is no number for vib_um/],
])('refused by line: %#', (text, line, message) => {
  expect(() => readStream(text)).toThrow(message);
  try {
    readStream(text);
  } catch (fault) {
    expect((fault as StreamFault).line).toBe(line);
  }
});
