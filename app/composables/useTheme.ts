import { useLocalStorage, usePreferredDark } from '@vueuse/core'

/** Day or night watch: as the system has it until chosen here. */
export function useTheme() {
  const dark = usePreferredDark()
  const chosen = useLocalStorage<'day' | 'night' | ''>('open-tide-theme', '')
  const theme = computed(() => chosen.value || (dark.value ? 'night' : 'day'))
  watchEffect(() => (document.documentElement.dataset.theme = theme.value))
  return { theme, turn: () => (chosen.value = theme.value === 'day' ? 'night' : 'day') }
}
