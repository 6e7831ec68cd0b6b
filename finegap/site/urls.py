"""Every address of the application."""

from django.contrib.auth.views import LogoutView
from django.urls import path, re_path

from finegap.audit import api as trail
from finegap.bench import api as bench
from finegap.bench import files
from finegap.bench import talk_api as talk
from finegap.due import api as due
from finegap.fleet import api as fleet
from finegap.fleet import life_api as pump_life
from finegap.inventory import api as inventory
from finegap.people import api as people
from finegap.sharing import api as sharing
from finegap.sharing import views as shared
from finegap.sheets import api as sheets
from finegap.sheets import draft_api as typing
from finegap.site import backup_api, views
from finegap.site.first_visit import FirstVisit
from finegap.works import api as works

_JOB = "api/jobs/<int:number>"

urlpatterns = [
    path("api/start", views.Start.as_view()),
    path("api/me", views.Me.as_view()),
    path("api/jobs", bench.Jobs.as_view()),
    path(_JOB, bench.JobDetail.as_view()),
    *(path(f"{_JOB}/{under}", view) for under, view in bench.CHANGES.items()),
    path(f"{_JOB}/pull", bench.Pull.as_view()),
    path(f"{_JOB}/photos/<uuid:photo>", files.PhotoFile.as_view()),
    path(f"{_JOB}/fits/<slug:feature>/<str:gauge>", bench.GaugeFit.as_view()),
    path(f"{_JOB}/workings/<path:place>", bench.WorkingOf.as_view()),
    path(f"{_JOB}/drawing", bench.Drawing.as_view()),
    path(f"{_JOB}/wear/<slug:feature>", bench.Wear.as_view()),
    re_path(r"^api/jobs/(?P<number>\d{1,9})/order\.(?P<kind>pdf|csv|txt)$", files.OrderFile.as_view()),
    path(f"{_JOB}/log", bench.Log.as_view()),
    path(f"{_JOB}/tape.pdf", files.TapeFile.as_view()),
    path(f"{_JOB}/version", bench.Version.as_view()),
    re_path(r"^api/jobs/(?P<number>\d{1,9})/report\.(?P<kind>pdf|json)$", files.Report.as_view()),
    path("api/people", people.People.as_view()),
    path("api/people/switch", people.Switch.as_view()),
    path("api/people/password", people.OwnPassword.as_view()),
    path("api/people/<str:username>/change", people.PersonChanged.as_view()),
    path("api/people/pin", people.OwnPin.as_view()),
    path("api/people/<str:username>/pin/clear", people.PinCleared.as_view()),
    path("api/people/<str:username>/unlock", people.Unlocked.as_view()),
    path("api/people/<str:username>/second/clear", people.SecondCleared.as_view()),
    path("api/people/second", people.OwnSecond.as_view()),
    path("api/people/second/code", people.OwnSecondConfirmed.as_view()),
    path("api/people/second/off", people.OwnSecondTakenOff.as_view()),
    path("api/pumps", fleet.Pumps.as_view()),
    path("api/pumps-from-file", fleet.PumpsFromFile.as_view()),
    path("api/pumps/<str:tag>", fleet.PumpDetail.as_view()),
    path("api/pumps/<str:tag>/symptoms", fleet.PumpSymptoms.as_view()),
    path("api/pumps/<str:tag>/retire", fleet.PumpRetired.as_view()),
    path("api/pumps/<str:tag>/move", fleet.Moved.as_view()),
    path("api/pumps/<str:tag>/parts", fleet.PartsMoved.as_view()),
    path("api/pumps/<str:tag>/notes", fleet.Notes.as_view()),
    path("api/pumps/<str:tag>/documents", fleet.Documents.as_view()),
    path("api/pumps/<str:tag>/drawing", pump_life.PumpDrawing.as_view()),
    path("api/pumps/<str:tag>/wear/<slug:feature>", pump_life.PumpWear.as_view()),
    path("api/pumps/<str:tag>/life", pump_life.Life.as_view()),
    re_path(r"^api/pumps/(?P<tag>[^/]{1,30})/life\.(?P<kind>csv|json)$", pump_life.LifeFile.as_view()),
    path("api/pumps/<str:tag>/overhauls", pump_life.Overhauls.as_view()),
    path("api/pumps/<str:tag>/photos", pump_life.PumpPhotos.as_view()),
    path("api/pumps/<str:tag>/bench-sheet.pdf", pump_life.BenchSheet.as_view()),
    path("api/pump-documents/<uuid:pk>", pump_life.DocumentFile.as_view()),
    path("api/labels.pdf", pump_life.Labels.as_view()),
    path("api/labels/<str:code>", pump_life.Label.as_view()),
    path("api/due", due.DueList.as_view()),
    path("api/due/ahead", due.Ahead.as_view()),
    re_path(r"^api/due\.(?P<kind>csv|pdf)$", due.DueFile.as_view()),
    path(f"{_JOB}/talk", talk.Talk.as_view()),
    path(f"{_JOB}/notes", talk.Notes.as_view()),
    path(f"{_JOB}/notes/<uuid:note>/take", talk.NoteTaken.as_view()),
    path(f"{_JOB}/notes/<uuid:note>/strike", talk.NoteStruck.as_view()),
    path(f"{_JOB}/looked", talk.Looked.as_view()),
    path(f"{_JOB}/links", sharing.JobLinks.as_view()),
    path("api/links", sharing.Links.as_view()),
    path("api/links/<uuid:pk>", sharing.LinkUses.as_view()),
    path("api/links/<uuid:pk>/revoke", sharing.LinkRevoked.as_view()),
    path("shared/<str:secret>", shared.summary, name="shared"),
    path("shared/<str:secret>/report.pdf", shared.report, name="shared-report"),
    path("calendar/<str:secret>.ics", shared.calendar),
    path("api/pumps/<str:tag>/earlier", fleet.Earlier.as_view()),
    path("api/pumps/<str:tag>/meter", fleet.Meter.as_view()),
    path("api/pumps/<str:tag>/lubricated", fleet.Lubrication.as_view()),
    path("api/pumps/<str:tag>/strike", fleet.LineStruck.as_view()),
    path("api/pumps/<str:tag>/due.ics", fleet.DueCalendar.as_view()),
    path("api/sheets", sheets.Sheets.as_view()),
    path("api/sheet-choices/<slug:slug>", fleet.ChoicesOfPump.as_view()),
    path("api/families", typing.Families.as_view()),
    path("api/sheet-drafts", typing.Drafts.as_view()),
    path("api/sheet-drafts/<int:pk>", typing.Draft.as_view()),
    path("api/sheet-drafts/<int:pk>/keep", typing.DraftKept.as_view()),
    path("api/sheet-drafts/<int:pk>/sizes", typing.DraftApart.as_view()),
    path("api/sheet-drafts/<int:pk>/paste", typing.DraftPasted.as_view()),
    path("api/sheet-drafts/<int:pk>/file", typing.DraftFromFile.as_view()),
    path("api/sheet-drafts/<int:pk>/drawing", typing.DraftDrawing.as_view()),
    path("api/sheet-drafts/<int:pk>/pages", typing.DraftPages.as_view()),
    path("api/manual-pages/<uuid:pk>", typing.ManualPageFile.as_view()),
    path("api/sheets/<slug:slug>/<str:revision>/reading", typing.Reading.as_view()),
    path("api/sheets/<slug:slug>/<str:revision>/against/<str:other>", typing.Comparison.as_view()),
    path("api/sheets/<slug:slug>/<str:revision>", sheets.SheetRevisions.as_view()),
    path("api/sheets/<slug:slug>/<str:revision>/file", sheets.SheetExport.as_view()),
    path("api/gauges", inventory.Gauges.as_view()),
    path("api/guns", inventory.Guns.as_view()),
    path("api/settings", works.Settings.as_view()),
    path("api/settings/logo", works.Logo.as_view()),
    path("api/settings/zones", works.TimeZones.as_view()),
    path("api/sums", inventory.Sums.as_view()),
    path("api/sums/<slug:key>", inventory.Sum.as_view()),
    path("api/shelf", inventory.Shelf.as_view()),
    path("api/shelf/file", inventory.ShelfFromFile.as_view()),
    path("api/gauges/file", inventory.GaugesFromFile.as_view()),
    path("api/gauges/<str:tag>", inventory.GaugeDetail.as_view()),
    path("api/gauges/<str:tag>/retire", inventory.GaugeRetired.as_view()),
    path("api/procedures", sheets.Procedures.as_view()),
    path("api/procedures/<slug:family>", sheets.Procedure.as_view()),
    path("api/changes", trail.Changes.as_view()),
    path("api/changes.csv", trail.ChangesFile.as_view()),
    path("api/backups", backup_api.Backups.as_view()),
    path("api/backups/<str:name>", backup_api.BackupFile.as_view()),
    path("authority.crt", views.authority),
    path("works.zip", views.everything),
    path("first-visit", FirstVisit.as_view(), name="first-visit"),
    path("sign-in", views.SignIn.as_view(), name="sign-in"),
    path("sign-in/code", views.SignInCode.as_view(), name="sign-in-code"),
    path("sign-in/demo", views.demo_sign_in, name="demo-sign-in"),
    path("sign-out", LogoutView.as_view(next_page="sign-in"), name="sign-out"),
    path("no-role", views.no_role, name="no-role"),
    re_path(r"^(?!api/|static/|shared/|calendar/).*$", views.page),
]

handler400, handler403, handler404, handler500 = (
    f"finegap.site.error_pages.{name}" for name in ("bad_request", "not_allowed", "not_found", "fault")
)
