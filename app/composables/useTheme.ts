import { createGlobalState, usePreferredDark, useStorage } from '@vueuse/core'
import { storage } from '~/services/storage.ts'

/** Day or night watch: as the system has it until chosen here. One state for all that show or change it. */
export const useTheme = createGlobalState(() => {
  const dark = usePreferredDark()
  const chosen = useStorage<'day' | 'night' | ''>('open-tide-theme', '', storage)
  const theme = computed(() => chosen.value || (dark.value ? 'night' : 'day'))
  watchEffect(() => (document.documentElement.dataset.theme = theme.value))
  return { theme, turn: () => (chosen.value = theme.value === 'day' ? 'night' : 'day') }
})
