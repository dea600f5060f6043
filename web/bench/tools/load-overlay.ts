/** What a tool in hand works with; fetched when a picture's tools are in sight, to be there when one is taken. */
export const loadOverlay = () => import("./overlay.tsx");
