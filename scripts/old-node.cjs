// Read by every Node.js, however old: no syntax that is newer than it.

/**
 * Why a Node.js cannot run this program, in words; null where it can.
 * @param {string} version
 */
function whyTooOld(version) {
  var parts = version.split('.');
  if (Number(parts[0]) > 20 || (Number(parts[0]) === 20 && Number(parts[1]) >= 19)) return null;
  return (
    'Lanternwright needs Node.js 20.19 or newer and this is ' +
    version +
    ': install a newer Node.js and start again.'
  );
}

var why = whyTooOld(process.versions.node);
if (why) {
  console.error(why);
  process.exit(1);
}
module.exports = whyTooOld;
