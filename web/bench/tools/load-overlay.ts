/** What a tool in hand works with; fetched once a picture's tools are in sight, so that it is there when one is taken. */
export const loadOverlay = () => import("./overlay.tsx");
