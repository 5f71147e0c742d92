/** Whether the browser draws in the round with a graphics card: without one it is far too slow, and what does it need not be loaded. */
export function hasGraphicsCard(): boolean {
  const gl = document.createElement('canvas').getContext('webgl2')
  if (!gl) return false
  const about = gl.getExtension('WEBGL_debug_renderer_info')
  const name = String(gl.getParameter(about ? about.UNMASKED_RENDERER_WEBGL : gl.RENDERER))
  // A browser has only so many contexts at a time.
  gl.getExtension('WEBGL_lose_context')?.loseContext()
  return !/swiftshader|llvmpipe|software/i.test(name)
}
