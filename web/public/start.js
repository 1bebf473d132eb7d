// Before the first paint, so that the night shift is never blinded.
(function () {
  var chosen = localStorage.getItem('lanternwright.theme');
  var night = chosen ? chosen === 'night' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme = night ? 'night' : 'day';
})();
// The page forbids code made from text. Zod would try whether it may, before any module could tell it not to.
globalThis.__zod_globalConfig = { jitless: true };
