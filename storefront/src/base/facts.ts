// Written by scripts/openapi.py from the Python core. Do not change it by hand.
export const TABLET_FROM_PX = 600 as const;
export const DESKTOP_FROM_PX = 1024 as const;
