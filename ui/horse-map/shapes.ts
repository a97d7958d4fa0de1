import type { TouchZone } from "@/core/know";

/** The drawing's box. The horse faces left; the right side is its mirror image. */
export const MAP_WIDTH = 400;
export const MAP_HEIGHT = 290;

/** Each zone as one closed path, drawn in plain curves. Neighbours share their edges, so that the zones make the horse. */
export const ZONE_PATHS: Readonly<Record<TouchZone, string>> = {
  muzzle: "M31 92 C23 101 24 113 34 117 C43 121 53 116 60 108 L48 84 C41 85 35 87 31 92 Z",
  cheek: "M48 84 L60 108 C72 106 86 103 97 92 L99 55 L84 45 C71 55 58 70 48 84 Z",
  ears: "M84 45 C83 36 85 27 91 19 C96 25 98 31 98 37 C101 32 105 28 110 26 C112 33 110 41 106 48 Z",
  poll: "M84 45 L106 48 C113 50 119 53 125 57 L115 80 L97 92 L99 55 Z",
  neck: "M125 57 C143 67 161 79 178 87 L153 137 L114 141 C110 123 105 106 97 92 L115 80 Z",
  chest: "M114 141 L153 137 L147 180 L133 184 C120 174 114 159 114 141 Z",
  shoulder: "M178 87 L190 91 L184 143 L170 185 L147 180 L153 137 Z",
  "foreleg upper": "M133 184 L147 180 L170 185 C168 198 163 209 160 218 L139 218 C137 206 134 195 133 184 Z",
  knee: "M139 218 L160 218 L159 233 L141 233 Z",
  cannon: "M141 233 L159 233 L156 256 L144 256 Z",
  fetlock: "M144 256 L156 256 L157 268 L141 268 Z",
  hoof: "M141 268 L157 268 L161 284 L133 284 Z",
  girth: "M190 91 L207 94 L206 190 C194 190 181 188 170 185 L184 143 Z",
  back: "M207 94 C228 96 250 91 270 87 L267 130 L206 143 Z",
  belly: "M206 143 L267 130 L262 180 C245 187 226 190 206 190 Z",
  flank: "M270 87 L286 85 L283 130 L275 176 L262 180 L267 130 Z",
  thigh: "M286 85 C300 86 312 92 320 101 L317 126 L311 158 C308 176 311 194 316 206 L294 210 C289 197 282 186 275 176 L283 130 Z",
  hock: "M294 210 L316 206 L317 225 L300 229 Z",
  "hind cannon": "M300 229 L317 225 L313 256 L300 256 Z",
  "hind fetlock": "M300 256 L313 256 L315 268 L298 268 Z",
  "hind hoof": "M298 268 L315 268 L319 284 L291 284 Z",
  tail: "M320 101 C335 105 346 118 350 138 C355 163 356 189 350 212 C343 207 338 199 336 190 C338 165 335 145 328 131 L331 119 Z",
  "behind the tail": "M320 101 L331 119 L328 131 L325 166 C320 175 314 180 310.5 177 L311 158 L317 126 Z",
};

/** Middle of each zone, for its mark and its grade. */
export const ZONE_MIDDLES: Readonly<Record<TouchZone, readonly [number, number]>> = {
  muzzle: [41, 102],
  cheek: [78, 80],
  ears: [98, 36],
  poll: [110, 63],
  neck: [140, 106],
  chest: [136, 160],
  shoulder: [168, 138],
  "foreleg upper": [151, 198],
  knee: [150, 225.5],
  cannon: [150, 244.5],
  fetlock: [150, 262],
  hoof: [147, 277],
  girth: [195, 140],
  back: [238, 115],
  belly: [236, 163],
  flank: [275, 128],
  thigh: [297, 140],
  hock: [307, 218],
  "hind cannon": [308, 242],
  "hind fetlock": [306.5, 262],
  "hind hoof": [305, 277],
  tail: [343, 160],
  "behind the tail": [319, 148],
};

/** The legs of the far side, drawn pale behind: they are not touched from here. */
export const FAR_LEGS = [
  "M128 183 L143 183 L150 200 L133 222 L128 246 L124 268 L126 284 L108 284 L112 268 L116 244 L118 222 C122 208 127 196 128 183 Z",
  "M281 176 L300 190 L292 212 L278 231 L279 256 L277 268 L279 284 L259 284 L264 268 L264 232 L266 214 L272 196 Z",
] as const;

/** Mane and eye: they say which way the horse looks. */
export const MANE = "M106 47 C128 51 152 63 181 86 C171 87 159 83 148 77 C135 70 120 61 106 47 Z";
export const EYE: readonly [number, number] = [78, 62];
