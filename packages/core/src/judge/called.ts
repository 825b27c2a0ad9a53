import { Finding, finding } from '../quantity/finding';
import { speaksOfOther, speaksOfTool } from '../shop/guess';
import { Tool } from '../shop/tool';
import { CalledTool } from '../program/read/remarks';

/** Tools a program calls and names, that are others in the job: whoever loads by the program's list runs another tool. */
export function otherTools(called: CalledTool[], tools: Tool[]): Finding[] {
  return called.flatMap(({ number, remark, line, isNamed }) => {
    const tool = tools.find((t) => t.number === number);
    if (!tool || !(isNamed || speaksOfTool(remark)) || !speaksOfOther(remark, tool)) return [];
    return [finding('tool-differs', { number, remark, tool: tool.name }, { line, tool: tool.id })];
  });
}
