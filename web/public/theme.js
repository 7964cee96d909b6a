/* Sets the theme before the first paint, and asks for what the first view shows. */
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
/* The bench is asked for while the program is still on its way. */
(function () {
  if (location.pathname !== '/' || !window.fetch) return;
  window.needlecaseEarly = {
    '/api/v1/bench': fetch('/api/v1/bench', { headers: { Accept: 'application/json' } }),
  };
  // Whoever takes it up says what went wrong.
  window.needlecaseEarly['/api/v1/bench'].catch(function () {});
})();
