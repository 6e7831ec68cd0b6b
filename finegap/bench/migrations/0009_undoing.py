"""What is put right is struck out and kept; a zero is a row; a proof is of the step it was seen at."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


def name_who_struck(apps, schema_editor):
    """A row that was struck by nobody in particular was struck by who had made it: no other name is known."""
    for model in ("Reading", "TorqueMark"):
        rows = apps.get_model("bench", model).objects.exclude(struck_reason="").filter(struck_by__isnull=True)
        rows.update(struck_by=models.F("by"))


def keep_zeros(apps, schema_editor):
    """The zero of a job, by whom and when its log says; the play where the sheet's was changed goes with it."""
    job_of, event_of, zero_of = (apps.get_model("bench", name) for name in ("Job", "Event", "ZeroFound"))
    for job in job_of.objects.exclude(zero_school="").iterator():
        said = event_of.objects.filter(job=job, what__startswith="Zero by ").order_by("-version").first()
        zero_of.objects.create(
            id=uuid.uuid4(),
            job=job,
            school=job.zero_school,
            lash_mm=job.lash_mm,
            by_id=said.by_id if said else job.opened_by_id,
            at=said.at if said else job.opened_at,
            zone_min=said.zone_min if said else 0,
            made=said.version if said else 0,
        )


_SEEN_AT = {"turning": "free_turn", "end-play": "end_play"}
"""The steps proofs were seen at until now, in every family; all others were of the first hour."""


def place_proofs(apps, schema_editor):
    """Each proof to the step it was seen at."""
    proofs = apps.get_model("bench", "ProofMark").objects
    for seen, step in _SEEN_AT.items():
        proofs.filter(seen=seen).update(step=step)
    proofs.exclude(seen__in=list(_SEEN_AT)).update(step="first_hour")


class Migration(migrations.Migration):

    dependencies = [
        ('bench', '0008_versions_and_certificates'),
        ('toolbox', '0004_certificates_and_settings'),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.RunPython(name_who_struck, migrations.RunPython.noop),
        migrations.RemoveConstraint(
            model_name='job',
            name='lash_not_negative',
        ),
        migrations.CreateModel(
            name='Abandonment',
            fields=[
                ('at', models.DateTimeField()),
                ('zone_min', models.SmallIntegerField(default=0)),
                ('id', models.UUIDField(primary_key=True, serialize=False)),
                ('sent', models.CharField(blank=True, max_length=64)),
                ('made', models.PositiveIntegerField(default=0)),
                ('reason', models.CharField(max_length=300)),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='Amendment',
            fields=[
                ('at', models.DateTimeField()),
                ('zone_min', models.SmallIntegerField(default=0)),
                ('id', models.UUIDField(primary_key=True, serialize=False)),
                ('sent', models.CharField(blank=True, max_length=64)),
                ('made', models.PositiveIntegerField(default=0)),
                ('number', models.PositiveIntegerField()),
                ('what', models.TextField(max_length=2000)),
                ('reason', models.CharField(max_length=300)),
                ('void', models.BooleanField(default=False)),
                ('belongs_to', models.CharField(blank=True, max_length=30)),
                ('own', models.BooleanField(default=False)),
            ],
            options={
                'ordering': ['number'],
            },
        ),
        migrations.CreateModel(
            name='ZeroFound',
            fields=[
                ('at', models.DateTimeField()),
                ('zone_min', models.SmallIntegerField(default=0)),
                ('id', models.UUIDField(primary_key=True, serialize=False)),
                ('sent', models.CharField(blank=True, max_length=64)),
                ('made', models.PositiveIntegerField(default=0)),
                ('struck_at', models.DateTimeField(blank=True, null=True)),
                ('struck_reason', models.CharField(blank=True, max_length=300)),
                ('school', models.CharField(max_length=30)),
                ('lash_mm', models.FloatField(default=0)),
                ('lash_typed', models.CharField(blank=True, max_length=60)),
            ],
            options={
                'ordering': ['at'],
                'abstract': False,
            },
        ),
        migrations.RemoveConstraint(
            model_name='decision',
            name='one_decision_a_feature',
        ),
        migrations.RemoveConstraint(
            model_name='newpart',
            name='a_new_part_is_confirmed_once',
        ),
        migrations.RemoveConstraint(
            model_name='partfitted',
            name='a_part_is_fitted_once',
        ),
        migrations.RemoveConstraint(
            model_name='proofmark',
            name='one_proof_of_each',
        ),
        migrations.RemoveConstraint(
            model_name='reading',
            name='struck_with_a_reason',
        ),
        migrations.RemoveConstraint(
            model_name='stepmark',
            name='a_step_is_done_once',
        ),
        migrations.RemoveConstraint(
            model_name='torquemark',
            name='torque_struck_with_a_reason',
        ),
        migrations.AddField(
            model_name='decision',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='decision',
            name='struck_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='decision',
            name='struck_by',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='decision',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='event',
            name='about',
            field=models.CharField(default='*', max_length=400),
        ),
        migrations.AddField(
            model_name='look',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='newpart',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='newpart',
            name='struck_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='newpart',
            name='struck_by',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='newpart',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='onhand',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='partfitted',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='partfitted',
            name='struck_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='partfitted',
            name='struck_by',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='partfitted',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='photo',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='proofmark',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='proofmark',
            name='step',
            field=models.CharField(default='', max_length=40),
            preserve_default=False,
        ),
        migrations.AddField(
            model_name='proofmark',
            name='struck_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='proofmark',
            name='struck_by',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='proofmark',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='reading',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='runinnote',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='runinnote',
            name='struck_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='runinnote',
            name='struck_by',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='runinnote',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='signoff',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='signoff',
            name='own',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='stepmark',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='stepmark',
            name='own',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='stepmark',
            name='past',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='stepmark',
            name='struck_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='stepmark',
            name='struck_by',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='stepmark',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='torquemark',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='torquemark',
            name='struck_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='try',
            name='made',
            field=models.PositiveIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='try',
            name='opened',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='try',
            name='struck_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='try',
            name='struck_by',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='try',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddField(
            model_name='try',
            name='trial',
            field=models.BooleanField(default=False),
        ),
        migrations.AlterField(
            model_name='reading',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AlterField(
            model_name='signoff',
            name='record_version',
            field=models.PositiveSmallIntegerField(default=7),
        ),
        migrations.AlterField(
            model_name='torquemark',
            name='struck_reason',
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.AddConstraint(
            model_name='decision',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='decision_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='decision',
            constraint=models.UniqueConstraint(condition=models.Q(('struck_reason', '')), fields=('job', 'feature'), name='one_decision_a_feature'),
        ),
        migrations.AddConstraint(
            model_name='newpart',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='newpart_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='newpart',
            constraint=models.UniqueConstraint(condition=models.Q(('struck_reason', '')), fields=('job', 'feature'), name='a_new_part_is_confirmed_once'),
        ),
        migrations.AddConstraint(
            model_name='partfitted',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='partfitted_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='partfitted',
            constraint=models.UniqueConstraint(condition=models.Q(('struck_reason', '')), fields=('job', 'stack', 'part'), name='a_part_is_fitted_once'),
        ),
        migrations.AddConstraint(
            model_name='proofmark',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='proofmark_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='proofmark',
            constraint=models.UniqueConstraint(condition=models.Q(('struck_reason', '')), fields=('job', 'step', 'seen'), name='one_proof_of_each'),
        ),
        migrations.AddConstraint(
            model_name='reading',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='reading_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='runinnote',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='runinnote_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='stepmark',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='stepmark_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='stepmark',
            constraint=models.UniqueConstraint(condition=models.Q(('struck_reason', '')), fields=('job', 'step'), name='a_step_is_done_once'),
        ),
        migrations.AddConstraint(
            model_name='torquemark',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='torquemark_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='try',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='try_struck_with_a_reason'),
        ),
        migrations.AddField(
            model_name='abandonment',
            name='by',
            field=models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='abandonment',
            name='job',
            field=models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='abandonment', to='bench.job'),
        ),
        migrations.AddField(
            model_name='amendment',
            name='by',
            field=models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='amendment',
            name='job',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='amendments', to='bench.job'),
        ),
        migrations.AddField(
            model_name='zerofound',
            name='by',
            field=models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='zerofound',
            name='job',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='zeros', to='bench.job'),
        ),
        migrations.AddField(
            model_name='zerofound',
            name='struck_by',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddConstraint(
            model_name='amendment',
            constraint=models.UniqueConstraint(fields=('job', 'number'), name='amendments_in_order'),
        ),
        migrations.AddConstraint(
            model_name='zerofound',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('struck_at__isnull', True), ('struck_by__isnull', True), ('struck_reason', '')), models.Q(('struck_by__isnull', False), models.Q(('struck_reason', ''), _negated=True)), _connector='OR'), name='zerofound_struck_with_a_reason'),
        ),
        migrations.AddConstraint(
            model_name='zerofound',
            constraint=models.UniqueConstraint(condition=models.Q(('struck_reason', '')), fields=('job',), name='one_zero_a_job'),
        ),
        migrations.AddConstraint(
            model_name='zerofound',
            constraint=models.CheckConstraint(condition=models.Q(('lash_mm__gte', 0)), name='lash_not_negative'),
        ),
        migrations.RunPython(keep_zeros, migrations.RunPython.noop),
        migrations.RunPython(place_proofs, migrations.RunPython.noop),
        migrations.RemoveField(
            model_name='job',
            name='lash_mm',
        ),
        migrations.RemoveField(
            model_name='job',
            name='zero_school',
        ),
    ]
