interface Answer {
  readonly file?: { readonly sha256: string; readonly type: string; readonly bytes: number }
  readonly error?: { readonly text: string }
}

/** Sends one file with progress; resolves with the status (0 when nothing answered). */
export function upload(
  url: string,
  file: Blob,
  progress: (share: number) => void,
  taken: (request: XMLHttpRequest) => void,
): Promise<{ status: number; answer: Answer }> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest()
    taken(request)
    request.open('POST', url)
    request.responseType = 'json'
    request.upload.onprogress = (e) => progress(e.lengthComputable ? e.loaded / e.total : 0)
    request.onload = () => resolve({ status: request.status, answer: (request.response ?? {}) as Answer })
    request.onerror = request.onabort = () => resolve({ status: 0, answer: {} })
    request.send(file)
  })
}
