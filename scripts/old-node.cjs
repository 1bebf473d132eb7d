// Read by every Node.js, however old: no syntax that is newer than it.
var version = process.versions.node.split('.');
if (Number(version[0]) < 20 || (Number(version[0]) === 20 && Number(version[1]) < 19)) {
  console.error(
    'Lanternwright needs Node.js 20.19 or newer and this is ' +
      process.versions.node +
      ': install a newer Node.js and start again.',
  );
  process.exit(1);
}
