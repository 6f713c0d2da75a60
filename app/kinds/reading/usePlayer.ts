/** A recording that plays while its transcript is read. */
export function usePlayer(
  cues: () => ReadonlyArray<{
    readonly from: number
    readonly to: number
    readonly start: number
    readonly end: number
  }>,
) {
  const media = ref<HTMLMediaElement | null>(null)
  const at = ref(0)
  const length = ref(0)
  const playing = ref(false)
  const speed = ref(1)
  const problem = ref(false)
  const cue = computed(() =>
    playing.value || at.value > 0 ? (cues().findLast(c => c.from <= at.value + 0.05) ?? null) : null,
  )
  const currentLineStart = computed(() => cue.value?.start ?? null)
  async function play(from?: number) {
    if (!media.value) return
    if (from !== undefined) media.value.currentTime = from
    try {
      await media.value.play()
    } catch {
      problem.value = true
    }
  }
  const pause = () => media.value?.pause()
  const toggle = () => {
    if (playing.value) pause()
    else void play()
  }
  const seek = (to: number) => {
    if (media.value) {
      media.value.currentTime = Math.max(0, Math.min(length.value || to, to))
      at.value = media.value.currentTime
    }
  }
  watch(speed, s => {
    if (media.value) media.value.playbackRate = s
  })
  const events = {
    timeupdate: () => {
      at.value = media.value?.currentTime ?? 0
    },
    play: () => {
      playing.value = true
      problem.value = false
    },
    pause: () => {
      playing.value = false
    },
    ended: () => {
      playing.value = false
    },
    loadedmetadata: () => {
      const d = media.value?.duration ?? 0
      length.value = Number.isFinite(d) ? d : (cues().at(-1)?.to ?? 0)
    },
    error: () => {
      problem.value = true
    },
  }
  // what was known before the page came to life is not told again
  watch(media, m => {
    if (m && m.readyState >= 1) events.loadedmetadata()
  })
  return {
    media,
    at,
    length,
    playing,
    speed,
    problem,
    cue,
    currentLineStart,
    play,
    pause,
    toggle,
    seek,
    events,
  }
}
