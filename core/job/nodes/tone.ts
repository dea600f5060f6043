import type { Field } from "../../settings/fields.ts";

export const toneFields: readonly Field<unknown>[] = [
  { key: "invert", label: "Light parts are the ink", type: "switch", help: "For pictures drawn light on dark.", auto: () => ({ value: false, reason: "dark on light, as most drawings are" }) },
];
