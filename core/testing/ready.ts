import "../cuts/register.ts";
import "../makings/register.ts";
import { loaded } from "../later.ts";

// Tests plan and make at once: what is loaded later elsewhere is there before they begin.
await loaded();
