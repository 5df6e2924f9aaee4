/** Hands a text or document to the person as a file; characters that file systems refuse become hyphens. */
export function download(name: string, type: string, content: string | Blob): void {
  const blob = typeof content === 'string' ? new Blob([content], { type: `${type};charset=utf-8` }) : content
  const url = URL.createObjectURL(blob)
  const link = document.createElement('a')
  link.href = url
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-')
  link.click()
  URL.revokeObjectURL(url)
}
