"""Steps over a history of every record, instead of a journal of whole rows; lines of lists get keys."""

import django.db.models.deletion
import django.utils.timezone
import simple_history.models
import swapglow.records.models
import copy
import unicodedata
import uuid
from django.db import migrations, models
from django.utils import timezone
from django.utils.dateparse import parse_datetime


_LISTS = ("opening", "wires", "originals")
_MODELS = ("equipment", "rail", "position", "readingafter", "readingbefore", "photo")


def _seen(value, keep):
    """A text without what cannot be seen; a name of nothing else gets one."""
    if isinstance(value, dict):
        return {key: _seen(part, "\n\r\t" if key in _LONG else "") for key, part in value.items()}
    if isinstance(value, list):
        return [_seen(part, keep) for part in value]
    if not isinstance(value, str):
        return value
    return "".join(c if unicodedata.category(c) not in ("Cc", "Cs") and c not in "\u2028\u2029" or c in keep else " " for c in value)


# Fields that may have several lines; so may the texts of a driver's details.
_LONG = ("notes", "dark", "sharing", "grounds", "sweep")


def _inputs(typed):
    out = _seen(typed, "")
    for key, detail in (typed.get("driver_details") or {}).items():
        out["driver_details"][key]["text"] = _seen(detail["text"], "\n\r\t")
    if "name" in out and not any(unicodedata.category(c)[0] not in "ZC" for c in out["name"]):
        out["name"] = "No name"
    return out


def _keyed(lines):
    return {str(n): {**line, "place": n} for n, line in enumerate(lines)} if isinstance(lines, list) else lines


_EMPTY = {
    "dark": "", "sharing": "", "grounds": "", "hazards": [], "opening": {}, "wires": {}, "originals": {},
    "feasibility": {
        "access": "", "brittle": "", "serviceable": "", "hours": "", "price": "", "hour_price": "", "others": {},
        "overruled": "",
    },
}


def _sheet(sheet):
    out = copy.deepcopy(_EMPTY) | _seen({name: _keyed(part) if name in _LISTS else part for name, part in (sheet or {}).items()}, "")
    asked = out.get("feasibility")
    if isinstance(asked, dict) and "others" in asked:
        out["feasibility"] = {**asked, "others": _keyed(asked["others"])}
    out["feasibility"] = _EMPTY["feasibility"] | out["feasibility"]
    return out


def _fields(fields):
    """A snapshot of the journal as columns of today."""
    out = {}
    for name, value in fields.items():
        if name == "updated":
            continue
        if name == "inputs":
            value = _inputs(value)
        if name == "take_in":
            value = _sheet(value)
        if name == "created":
            value = parse_datetime(value) if isinstance(value, str) else value
        out[f"{name}_id" if name in ("equipment", "rail", "position") else name] = value
    return out


def forwards(apps, schema_editor):
    alias = schema_editor.connection.alias
    now = timezone.now()

    def model(name):
        return apps.get_model("records", name).objects.using(alias)

    def historical(name):
        return apps.get_model("records", f"historical{name}").objects.using(alias)

    def put(name, key, kind, fields, step):
        historical(name).create(id=key, history_type=kind, history_date=now, step=step, **fields)

    def rows(step, before, after):
        were = {(r["model"].removeprefix("records."), r["pk"]): _fields(r["fields"]) for r in before}
        are = {(r["model"].removeprefix("records."), r["pk"]): _fields(r["fields"]) for r in after}
        for name, key in [*were, *(k for k in are if k not in were)]:
            was, now_ = were.get((name, key)), are.get((name, key))
            if was is not None and now_ is not None:
                put(name, key, "~", was, None)
                put(name, key, "~", now_, step)
            elif now_ is not None:
                put(name, key, "+", now_, step)
            elif was is not None:
                put(name, key, "-", was, step)

    steps = apps.get_model("records", "Step").objects.using(alias)
    undone = []
    for change in model("change").order_by("id"):
        step = steps.create(
            scope=change.scope, label=change.label, gesture=change.touched, reverted=change.undone, at=change.at
        )
        rows(step, change.before, change.after)
        if change.undone:
            undone.append((step, change))
    for step, change in reversed(undone):
        answer = steps.create(
            scope=change.scope, kind="undo", of=step, label=change.label, gesture=f"undo:{step.pk}", at=change.at
        )
        rows(answer, change.after, change.before)

    for name in ("equipment", "rail", "position", "readingafter", "readingbefore"):
        for record in model(name).iterator():
            record.inputs = _inputs(record.inputs)
            if name == "equipment":
                record.take_in = _sheet(record.take_in)
            record.save()
    # What stands now is what stood before whatever comes next.
    for name in (*_MODELS, "drawervalue"):
        for record in model(name).iterator():
            fields = {f.attname: getattr(record, f.attname) for f in record._meta.concrete_fields if f.name != "id"}
            put(name, record.pk, "~", fields, None)


class Migration(migrations.Migration):

    dependencies = [
        ('records', '0004_inputs'),
    ]

    operations = [
        migrations.CreateModel(
            name='HistoricalDrawerValue',
            fields=[
                ('id', models.BigIntegerField(auto_created=True, blank=True, db_index=True, verbose_name='ID')),
                ('history_user_id', models.IntegerField(null=True)),
                ('ohm', models.FloatField(db_index=True)),
                ('history_id', models.AutoField(primary_key=True, serialize=False)),
                ('history_date', models.DateTimeField(db_index=True)),
                ('history_change_reason', models.CharField(max_length=100, null=True)),
                ('history_type', models.CharField(choices=[('+', 'Created'), ('~', 'Changed'), ('-', 'Deleted')], max_length=1)),
            ],
            options={
                'verbose_name': 'historical drawer value',
                'verbose_name_plural': 'historical drawer values',
                'ordering': ('-history_date', '-history_id'),
                'get_latest_by': ('history_date', 'history_id'),
            },
            bases=(simple_history.models.HistoricalChanges, models.Model),
        ),
        migrations.CreateModel(
            name='HistoricalEquipment',
            fields=[
                ('history_user_id', models.IntegerField(null=True)),
                ('id', models.UUIDField(db_index=True, default=uuid.uuid4)),
                ('order', models.PositiveIntegerField(default=0)),
                ('created', models.DateTimeField(default=django.utils.timezone.now)),
                ('inputs', models.JSONField(default=dict)),
                ('take_in', models.JSONField(blank=True, default=swapglow.records.models.empty_sheet)),
                ('history_id', models.AutoField(primary_key=True, serialize=False)),
                ('history_date', models.DateTimeField(db_index=True)),
                ('history_change_reason', models.CharField(max_length=100, null=True)),
                ('history_type', models.CharField(choices=[('+', 'Created'), ('~', 'Changed'), ('-', 'Deleted')], max_length=1)),
            ],
            options={
                'verbose_name': 'historical equipment',
                'verbose_name_plural': 'historical equipments',
                'ordering': ('-history_date', '-history_id'),
                'get_latest_by': ('history_date', 'history_id'),
            },
            bases=(simple_history.models.HistoricalChanges, models.Model),
        ),
        migrations.CreateModel(
            name='HistoricalPhoto',
            fields=[
                ('history_user_id', models.IntegerField(null=True)),
                ('id', models.UUIDField(db_index=True, default=uuid.uuid4)),
                ('order', models.PositiveIntegerField(default=0)),
                ('created', models.DateTimeField(default=django.utils.timezone.now)),
                ('caption', models.CharField(blank=True, default='', max_length=200)),
                ('digest', models.CharField(max_length=64)),
                ('width', models.PositiveIntegerField()),
                ('height', models.PositiveIntegerField()),
                ('history_id', models.AutoField(primary_key=True, serialize=False)),
                ('history_date', models.DateTimeField(db_index=True)),
                ('history_change_reason', models.CharField(max_length=100, null=True)),
                ('history_type', models.CharField(choices=[('+', 'Created'), ('~', 'Changed'), ('-', 'Deleted')], max_length=1)),
            ],
            options={
                'verbose_name': 'historical photo',
                'verbose_name_plural': 'historical photos',
                'ordering': ('-history_date', '-history_id'),
                'get_latest_by': ('history_date', 'history_id'),
            },
            bases=(simple_history.models.HistoricalChanges, models.Model),
        ),
        migrations.CreateModel(
            name='HistoricalPosition',
            fields=[
                ('history_user_id', models.IntegerField(null=True)),
                ('id', models.UUIDField(db_index=True, default=uuid.uuid4)),
                ('order', models.PositiveIntegerField(default=0)),
                ('created', models.DateTimeField(default=django.utils.timezone.now)),
                ('inputs', models.JSONField(default=dict)),
                ('history_id', models.AutoField(primary_key=True, serialize=False)),
                ('history_date', models.DateTimeField(db_index=True)),
                ('history_change_reason', models.CharField(max_length=100, null=True)),
                ('history_type', models.CharField(choices=[('+', 'Created'), ('~', 'Changed'), ('-', 'Deleted')], max_length=1)),
            ],
            options={
                'verbose_name': 'historical position',
                'verbose_name_plural': 'historical positions',
                'ordering': ('-history_date', '-history_id'),
                'get_latest_by': ('history_date', 'history_id'),
            },
            bases=(simple_history.models.HistoricalChanges, models.Model),
        ),
        migrations.CreateModel(
            name='HistoricalRail',
            fields=[
                ('history_user_id', models.IntegerField(null=True)),
                ('id', models.UUIDField(db_index=True, default=uuid.uuid4)),
                ('order', models.PositiveIntegerField(default=0)),
                ('created', models.DateTimeField(default=django.utils.timezone.now)),
                ('inputs', models.JSONField(default=dict)),
                ('history_id', models.AutoField(primary_key=True, serialize=False)),
                ('history_date', models.DateTimeField(db_index=True)),
                ('history_change_reason', models.CharField(max_length=100, null=True)),
                ('history_type', models.CharField(choices=[('+', 'Created'), ('~', 'Changed'), ('-', 'Deleted')], max_length=1)),
            ],
            options={
                'verbose_name': 'historical rail',
                'verbose_name_plural': 'historical rails',
                'ordering': ('-history_date', '-history_id'),
                'get_latest_by': ('history_date', 'history_id'),
            },
            bases=(simple_history.models.HistoricalChanges, models.Model),
        ),
        migrations.CreateModel(
            name='HistoricalReadingAfter',
            fields=[
                ('history_user_id', models.IntegerField(null=True)),
                ('id', models.UUIDField(db_index=True, default=uuid.uuid4)),
                ('order', models.PositiveIntegerField(default=0)),
                ('created', models.DateTimeField(default=django.utils.timezone.now)),
                ('inputs', models.JSONField(default=dict)),
                ('history_id', models.AutoField(primary_key=True, serialize=False)),
                ('history_date', models.DateTimeField(db_index=True)),
                ('history_change_reason', models.CharField(max_length=100, null=True)),
                ('history_type', models.CharField(choices=[('+', 'Created'), ('~', 'Changed'), ('-', 'Deleted')], max_length=1)),
            ],
            options={
                'verbose_name': 'historical reading after',
                'verbose_name_plural': 'historical reading afters',
                'ordering': ('-history_date', '-history_id'),
                'get_latest_by': ('history_date', 'history_id'),
            },
            bases=(simple_history.models.HistoricalChanges, models.Model),
        ),
        migrations.CreateModel(
            name='HistoricalReadingBefore',
            fields=[
                ('history_user_id', models.IntegerField(null=True)),
                ('id', models.UUIDField(db_index=True, default=uuid.uuid4)),
                ('order', models.PositiveIntegerField(default=0)),
                ('created', models.DateTimeField(default=django.utils.timezone.now)),
                ('inputs', models.JSONField(default=dict)),
                ('history_id', models.AutoField(primary_key=True, serialize=False)),
                ('history_date', models.DateTimeField(db_index=True)),
                ('history_change_reason', models.CharField(max_length=100, null=True)),
                ('history_type', models.CharField(choices=[('+', 'Created'), ('~', 'Changed'), ('-', 'Deleted')], max_length=1)),
            ],
            options={
                'verbose_name': 'historical reading before',
                'verbose_name_plural': 'historical reading befores',
                'ordering': ('-history_date', '-history_id'),
                'get_latest_by': ('history_date', 'history_id'),
            },
            bases=(simple_history.models.HistoricalChanges, models.Model),
        ),
        migrations.CreateModel(
            name='Sent',
            fields=[
                ('key', models.UUIDField(primary_key=True, serialize=False)),
                ('at', models.DateTimeField(db_index=True, default=django.utils.timezone.now)),
                ('status', models.PositiveSmallIntegerField()),
                ('step', models.BigIntegerField(null=True)),
                ('body', models.BinaryField()),
            ],
        ),
        migrations.CreateModel(
            name='Step',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('scope', models.CharField(blank=True, db_index=True, default='', max_length=40)),
                ('kind', models.CharField(default='do', max_length=4)),
                ('label', models.CharField(max_length=200)),
                ('gesture', models.CharField(max_length=400)),
                ('reverted', models.BooleanField(default=False)),
                ('at', models.DateTimeField(default=django.utils.timezone.now)),
                ('of', models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='answers', to='records.step')),
            ],
            options={
                'ordering': ('id',),
            },
        ),
        migrations.CreateModel(
            name='Summary',
            fields=[
                ('position', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, primary_key=True, related_name='summary', serialize=False, to='records.position')),
                ('data', models.JSONField(null=True)),
                ('rests_on', models.CharField(default='', max_length=64)),
                ('core', models.CharField(default='', max_length=64)),
                ('due', models.BooleanField(db_index=True, default=True)),
            ],
        ),
        migrations.RemoveField(
            model_name='equipment',
            name='updated',
        ),
        migrations.RemoveField(
            model_name='photo',
            name='updated',
        ),
        migrations.RemoveField(
            model_name='position',
            name='updated',
        ),
        migrations.RemoveField(
            model_name='rail',
            name='updated',
        ),
        migrations.RemoveField(
            model_name='readingafter',
            name='updated',
        ),
        migrations.RemoveField(
            model_name='readingbefore',
            name='updated',
        ),
        migrations.AlterField(
            model_name='equipment',
            name='created',
            field=models.DateTimeField(default=django.utils.timezone.now),
        ),
        migrations.AlterField(
            model_name='photo',
            name='created',
            field=models.DateTimeField(default=django.utils.timezone.now),
        ),
        migrations.AlterField(
            model_name='position',
            name='created',
            field=models.DateTimeField(default=django.utils.timezone.now),
        ),
        migrations.AlterField(
            model_name='rail',
            name='created',
            field=models.DateTimeField(default=django.utils.timezone.now),
        ),
        migrations.AlterField(
            model_name='readingafter',
            name='created',
            field=models.DateTimeField(default=django.utils.timezone.now),
        ),
        migrations.AlterField(
            model_name='readingbefore',
            name='created',
            field=models.DateTimeField(default=django.utils.timezone.now),
        ),
        migrations.AddField(
            model_name='historicalphoto',
            name='equipment',
            field=models.ForeignKey(blank=True, db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='+', to='records.equipment'),
        ),
        migrations.AddField(
            model_name='historicalposition',
            name='equipment',
            field=models.ForeignKey(blank=True, db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='+', to='records.equipment'),
        ),
        migrations.AddField(
            model_name='historicalposition',
            name='rail',
            field=models.ForeignKey(blank=True, db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='+', to='records.rail'),
        ),
        migrations.AddField(
            model_name='historicalrail',
            name='equipment',
            field=models.ForeignKey(blank=True, db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='+', to='records.equipment'),
        ),
        migrations.AddField(
            model_name='historicalreadingafter',
            name='position',
            field=models.ForeignKey(blank=True, db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='+', to='records.position'),
        ),
        migrations.AddField(
            model_name='historicalreadingbefore',
            name='position',
            field=models.ForeignKey(blank=True, db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='+', to='records.position'),
        ),
        migrations.AddField(
            model_name='historicalreadingbefore',
            name='step',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='records.step'),
        ),
        migrations.AddField(
            model_name='historicalreadingafter',
            name='step',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='records.step'),
        ),
        migrations.AddField(
            model_name='historicalrail',
            name='step',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='records.step'),
        ),
        migrations.AddField(
            model_name='historicalposition',
            name='step',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='records.step'),
        ),
        migrations.AddField(
            model_name='historicalphoto',
            name='step',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='records.step'),
        ),
        migrations.AddField(
            model_name='historicalequipment',
            name='step',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='records.step'),
        ),
        migrations.AddField(
            model_name='historicaldrawervalue',
            name='step',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='records.step'),
        ),
        migrations.AlterField(
            model_name='equipment',
            name='take_in',
            field=models.JSONField(blank=True, default=swapglow.records.models.empty_sheet),
        ),
        migrations.RunPython(forwards, migrations.RunPython.noop),
        migrations.DeleteModel(name='Change'),
    ]
