import { Finding, care } from '../quantity/finding';
import { speaksOfOther } from '../shop/guess';
import { Tool } from '../shop/tool';
import { CalledTool } from '../program/read/remarks';

/** Tools a program calls and names, that are others in the job: whoever loads by the program's list runs another tool. */
export function otherTools(called: CalledTool[], tools: Tool[]): Finding[] {
  return called.flatMap(({ number, remark, line, isNamed }) => {
    const tool = tools.find((t) => t.number === number);
    if (!tool || !isNamed || !speaksOfOther(remark, tool)) return [];
    return [
      care(
        'tool-differs',
        `T${number} is “${remark}” in the program, and ${tool.name} here`,
        'Make sure which one is meant: the proof was made with the one here',
        { line, tool: tool.id },
      ),
    ];
  });
}
