import { Code, DataOf, Finding, finding } from '../../quantity/finding';

const MOST_FINDINGS = 200;

/** What is told while a program is read: each thing once, at the line that is being read. */
export class Told {
  readonly findings: Finding[] = [];
  /** From 1. */
  line = 0;
  private readonly said = new Set<string>();

  /** @param once names what is told only once */
  report<C extends Code>(code: C, data: DataOf<C>, once: string = code): void {
    this.tell(finding(code, data), once);
  }

  /** Tells a fault, where there is one. */
  tell(fault: Finding | undefined, once = `block:${this.line}`): void {
    if (!fault || this.said.has(once) || this.findings.length >= MOST_FINDINGS) return;
    this.said.add(once);
    this.findings.push({ ...fault, place: { line: this.line } });
  }
}
