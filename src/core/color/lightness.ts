/** CIE 1976 lightness L* (0 to 100) of a relative luminance (0 to 1), and back. Source: CIE 15. */
export function lightness(y: number): number {
  return y > 216 / 24389 ? 116 * Math.cbrt(y) - 16 : (24389 / 27) * y;
}

export function luminanceOfLightness(l: number): number {
  return l > 8 ? ((l + 16) / 116) ** 3 : (l * 27) / 24389;
}
