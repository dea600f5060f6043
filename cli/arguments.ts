import { parseArgs, type ParseArgsConfig } from "node:util";
import { Problem } from "@oaken/core/problem";

/** Where a command's options are to be read, for the end of a sentence about one of them. */
export const seeHelp = (command: string): string => `"oaken ${command} --help" lists what can be said.`;

/** Whether a command is asked what it takes. */
export const asksForHelp = (args: readonly string[]): boolean => args.includes("--help") || args.includes("-h");

/**
 * What was said on the command line.
 * @throws Problem `usage`: which option there is not, or misses its value
 */
export function readArguments<T extends ParseArgsConfig>(command: string, config: T): ReturnType<typeof parseArgs<T>> {
  try {
    return parseArgs(config);
  } catch (e) {
    throw new Problem("usage", `${(e as Error).message.split(". ")[0]}. ${seeHelp(command)}`);
  }
}
