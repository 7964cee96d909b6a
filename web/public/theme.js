/* Sets the theme before the first paint. */
(function () {
  var kept = null;
  try {
    kept = localStorage.getItem('needlecase.theme');
  } catch (_e) {
    /* private mode: follow the system */
  }
  var dark = kept ? kept === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.setAttribute('data-bs-theme', dark ? 'dark' : 'light');
})();
