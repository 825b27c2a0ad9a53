import { Program, Section } from '../program/write/step';

/** Lines a program's number stands in at most. */
const HEAD = 5;

/** Joins programs of one setup (one a tool) into one text, for proving them as they run: one after the other. */
export function joinPrograms(programs: Pick<Program, 'text' | 'sections'>[]): Pick<Program, 'text' | 'sections'> {
  const sections: Section[] = [];
  /** Subprograms of all but the last, which stand behind its own: nothing may run into them. */
  const called: { lines: string[]; sections: Section[] }[] = [];
  let before = 0;
  const kept = programs.map((program, i) => {
    const { text, sections: own, subprograms } = i < programs.length - 1 ? withoutSubprograms(program) : whole(program);
    if (subprograms) called.push(subprograms);
    sections.push(...own.map((s) => ({ ...s, line: s.line + before })));
    const lines = text.replace(/\n$/, '').split('\n');
    // Between two programs stands neither the end of one nor the head of the next.
    const isFirst = i === 0;
    const isLast = i === programs.length - 1;
    const body = lines.map((l, k) => {
      const isEnd = !isLast && /^(N\d+ )?(M2|M30|%)$/.test(l);
      const isHead = !isFirst && k < HEAD && /^(%|O\d+.*)$/.test(l);
      return isEnd || isHead ? '' : l;
    });
    before += body.length;
    return body.join('\n');
  });
  for (const { lines, sections: own } of called) {
    sections.push(...own.map((s) => ({ ...s, line: s.line + before })));
    kept.push(lines.join('\n'));
    before += lines.length;
  }
  return { text: kept.join('\n') + '\n', sections };
}

type Parts = Pick<Program, 'text' | 'sections'> & { subprograms?: { lines: string[]; sections: Section[] } };
const whole = (program: Pick<Program, 'text' | 'sections'>): Parts => program;

/** A program and, apart, the subprograms behind its end, with their sections counted from their own first line. */
function withoutSubprograms(program: Pick<Program, 'text' | 'sections'>): Parts {
  const lines = program.text.replace(/\n$/, '').split('\n');
  const first = lines.findIndex((l, k) => k >= HEAD && /^O\d+$/.test(l));
  if (first < 0) return program;
  const last = lines.lastIndexOf('M99');
  const isIn = ({ line }: Section) => line > first;
  return {
    text: [...lines.slice(0, first), ...lines.slice(last + 1)].join('\n') + '\n',
    sections: program.sections.filter((s) => !isIn(s)),
    subprograms: {
      lines: lines.slice(first, last + 1),
      sections: program.sections.filter(isIn).map((s) => ({ ...s, line: s.line - first })),
    },
  };
}
