const LONGEST = 600 // seconds

/** Speech recorded in the browser: begun, stopped, and handed over as a file. */
export function useRecorder(done: (recording: File) => void, baseName: string) {
  const recorder = shallowRef<MediaRecorder | null>(null)
  const seconds = ref(0)
  const refused = ref<string | null>(null)
  let ticking: ReturnType<typeof setInterval> | undefined

  async function begin() {
    refused.value = null
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
      const parts: Blob[] = []
      const rec = new MediaRecorder(stream)
      rec.ondataavailable = event => parts.push(event.data)
      rec.onstop = () => {
        for (const track of stream.getTracks()) track.stop()
        clearInterval(ticking)
        done(new File(parts, `${baseName}.${extensionOf(rec.mimeType)}`, { type: rec.mimeType }))
      }
      rec.start()
      recorder.value = rec
      seconds.value = 0
      ticking = setInterval(() => {
        if (++seconds.value >= LONGEST) end()
      }, 1000)
    } catch {
      refused.value = 'The microphone is not open to this page. Allow it in the browser, then try again.'
    }
  }
  function end() {
    recorder.value?.stop()
    recorder.value = null
  }
  onBeforeUnmount(() => {
    clearInterval(ticking)
    recorder.value?.stop()
  })
  const clock = computed(
    () => `${Math.floor(seconds.value / 60)}:${String(seconds.value % 60).padStart(2, '0')}`,
  )
  return { recording: computed(() => recorder.value !== null), clock, refused, begin, end }
}

const extensionOf = (type: string): string => {
  if (type.includes('ogg')) return 'ogg'
  if (type.includes('mp4')) return 'm4a'
  return 'weba'
}
