// The time zone of this device is most likely that of the works; what was chosen already stays.
const zone = document.getElementById('id_time_zone');
const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
if (zone && zone.value === 'UTC' && [...zone.options].some((one) => one.value === here)) zone.value = here;
