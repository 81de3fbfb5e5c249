/** Light or dark: kept in this browser, put on before the first paint by app.html. */
import { browser } from '$app/environment';

class Theme {
  dark = $state(browser && document.documentElement.classList.contains('dark'));
  change(): void {
    this.dark = !this.dark;
    document.documentElement.classList.toggle('dark', this.dark);
    localStorage.setItem('mossbell.theme', this.dark ? 'dark' : 'light');
    window.dispatchEvent(new Event('mossbell:theme'));
  }
}
export const theme = new Theme();
