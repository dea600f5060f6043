"use client";

// What the pages have in common. The layout names it, so that it is loaded once, with the layout, instead of once more
// with each page.
export { DropAnywhere } from "../shop/drop.tsx";
export { HomeLink } from "./mark.tsx";
export { UnitToggle } from "./unit-toggle.tsx";
