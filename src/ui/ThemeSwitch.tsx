'use client'

/** Paper by day, scope at the microscope; the choice is kept in a cookie so that the first paint is right. */
export function ThemeSwitch() {
  function change() {
    const next = document.documentElement.dataset.theme === 'scope' ? 'paper' : 'scope'
    document.documentElement.dataset.theme = next
    document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=lax`
    window.dispatchEvent(new Event('themechange'))
  }
  return (
    <button type="button" className="underline decoration-line underline-offset-4" onClick={change}>
      light / dark
    </button>
  )
}
