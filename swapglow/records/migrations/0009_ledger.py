"""Counts of the drawer become sums of movements; pictures become files; what was made without a history gets one."""

import uuid
from collections import Counter

import django.db.models.deletion
import django.utils.timezone
import simple_history.models
from django.db import migrations, models

_TAKE = "take"


def pictures_to_files(apps, schema_editor):
    from swapglow.records.photographs import place, put

    for digest, jpeg in (
        apps.get_model("records", "Picture").objects.using(schema_editor.connection.alias)
        .values_list("digest", "jpeg").iterator()
    ):
        put(bytes(jpeg), place(digest))


def _drawn(inputs):
    step = ((inputs or {}).get("steps") or {}).get(_TAKE) or {}
    return {k: n for k, n in (step.get("drawn") or {}).items() if n} if step.get("done") else {}


class _Ledger:
    """The movements of all compartments, made from what their histories say."""

    def __init__(self, apps, alias):
        def model(name):
            return apps.get_model("records", name).objects.using(alias)

        self.model = model
        self.steps = {s.pk: s for s in model("step")}
        rows = model("historicalposition").exclude(step=None).values_list("step", "id")
        self.lamps = dict(rows)
        # The movement that a step made in a compartment, or took away there.
        self.of_step = {}

    def move(self, part, kind, by, step=None, at=None, position=None):
        at = at or django.utils.timezone.now()
        made = self.model("movement").create(part=part, kind=kind, by=by, position=position, at=at)
        if step is not None:
            self.told(made, "+", step, at)
        return made

    def told(self, made, kind, step, at):
        self.of_step[step, made.part] = made
        self.model("historicalmovement").create(
            id=made.pk, part=made.part, kind=made.kind, by=made.by, position=made.position, at=made.at,
            history_type=kind, history_date=at, step_id=step,
        )

    def answered(self, row, part):
        """Whether this row undid or redid a movement: that one goes, or comes back."""
        step = self.steps.get(row.step_id)
        made = self.of_step.get((step.of_id, part)) if step is not None and step.kind != "do" else None
        if made is None:
            return False
        if step.kind == "undo":
            self.told(made, "-", step.pk, row.history_date)
            self.model("movement").filter(pk=made.pk).delete()
        else:
            back = self.model("movement").create(
                id=made.pk, part=part, kind=made.kind, by=made.by, position=made.position, at=made.at
            )
            self.told(back, "+", step.pk, row.history_date)
        return True

    def of(self, name, record):
        history = self.model(f"historical{name}")
        rows = list(history.filter(id=record.pk).exclude(history_type="-").order_by("history_id"))
        if not rows:
            history.create(
                id=record.pk, order=record.order, created=record.created, inputs=record.inputs, history_type="+",
                history_date=record.created, step=None,
            )
        before = None
        for n, row in enumerate(rows):
            count = row.inputs.get("count")
            lamp = self.lamps.get(row.step_id)
            if lamp is not None:
                # A tick took these out: the row is a state from now on, and nothing to undo.
                history.filter(history_id=row.history_id).update(step=None)
            if count == before or self.answered(row, record.pk):
                pass
            elif count is None:
                self.move(record.pk, "uncounted", 0, row.step_id, row.history_date)
            elif lamp is not None and before is not None:
                by = count - before
                self.move(record.pk, "taken" if by < 0 else "put_back", by, None, row.history_date, lamp)
            else:
                by = count - self.sum(record.pk)
                self.move(record.pk, "counted", by, row.step_id if n else None, row.history_date)
            before = count

    def sum(self, part):
        return self.model("movement").filter(part=part).aggregate(models.Sum("by"))["by__sum"] or 0

    def close(self):
        """What the histories do not explain: each lamp's parts are booked for it, each sum is the count that stands."""
        for p in self.model("position"):
            booked = Counter()
            for part, by in self.model("movement").filter(position=p.pk).values_list("part", "by"):
                booked[str(part)] -= by
            said = Counter(_drawn(p.inputs))
            for part in said.keys() | booked.keys():
                try:
                    key = uuid.UUID(part)
                except ValueError:
                    continue
                if more := said[part] - booked[part]:
                    self.move(key, "taken" if more > 0 else "put_back", -more, position=p.pk)
        for name in ("stockpart", "benchled"):
            for record in self.model(name):
                count = record.inputs.get("count")
                if count is not None and (by := count - self.sum(record.pk)):
                    self.move(record.pk, "counted", by)
                elif count is not None and not self.model("movement").filter(part=record.pk, kind="counted").exists():
                    self.move(record.pk, "counted", 0)


def ledger(apps, schema_editor):
    made = _Ledger(apps, schema_editor.connection.alias)
    for name in ("stockpart", "benchled"):
        for record in made.model(name).order_by("order", "created"):
            made.of(name, record)
    made.close()


class Migration(migrations.Migration):

    dependencies = [
        ('records', '0001_squashed_0008_stock'),
    ]

    operations = [
        migrations.CreateModel(
            name='HistoricalMovement',
            fields=[
                ('id', models.BigIntegerField(auto_created=True, blank=True, db_index=True, verbose_name='ID')),
                ('history_user_id', models.IntegerField(null=True)),
                ('part', models.UUIDField(db_index=True)),
                ('kind', models.CharField(max_length=9)),
                ('by', models.IntegerField()),
                ('position', models.UUIDField(db_index=True, null=True)),
                ('at', models.DateTimeField(default=django.utils.timezone.now)),
                ('history_id', models.AutoField(primary_key=True, serialize=False)),
                ('history_date', models.DateTimeField(db_index=True)),
                ('history_change_reason', models.CharField(max_length=100, null=True)),
                ('history_type', models.CharField(choices=[('+', 'Created'), ('~', 'Changed'), ('-', 'Deleted')], max_length=1)),
            ],
            options={
                'verbose_name': 'historical movement',
                'verbose_name_plural': 'historical movements',
                'ordering': ('-history_date', '-history_id'),
                'get_latest_by': ('history_date', 'history_id'),
            },
            bases=(simple_history.models.HistoricalChanges, models.Model),
        ),
        migrations.CreateModel(
            name='Movement',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('part', models.UUIDField(db_index=True)),
                ('kind', models.CharField(max_length=9)),
                ('by', models.IntegerField()),
                ('position', models.UUIDField(db_index=True, null=True)),
                ('at', models.DateTimeField(default=django.utils.timezone.now)),
            ],
            options={
                'ordering': ('id',),
                'abstract': False,
            },
        ),
        migrations.AddField(
            model_name='step',
            name='passed',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='historicalmovement',
            name='step',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='records.step'),
        ),
        migrations.RunPython(pictures_to_files, migrations.RunPython.noop),
        migrations.RunPython(ledger, migrations.RunPython.noop),
        migrations.DeleteModel(
            name='Picture',
        ),
    ]
