"""What was typed becomes one column in the shape of its input model; words become the field's."""

from django.db import migrations, models

# Columns that become fields of the JSON column, by the model's old name.
_COLUMNS = {
    "equipment": ("name", "maker_model", "board_revision", "owner", "notes"),
    "rail": ("name", "kind", "read_at", "usual", "low", "high", "details", "fuse"),
    "position": (
        "name", "stage", "notes", "lamp_id", "lamp_volts", "lamp_amps", "lamp_candela", "lamp_base", "led_id",
        "vf", "rated", "in_series", "driver_drop", "target", "ceiling", "series", "rounding", "resistor",
        "resistor_parts", "resistor_source", "tolerance", "rating_w", "treatment", "capacitor", "capacitor_v",
        "second_led_id", "band", "chassis_negative", "mains", "glow_floor", "driver_kind", "driver_details",
        "branches", "lead", "common", "shunt", "shunt_across", "shunt_w", "series_diodes", "regulator_id",
        "module", "weigh", "sweep", "sweep_in_series", "sweep_resistor",
    ),
    "reading": ("kind", "text", "burden", "note"),
    "taken": ("function", "text", "points", "lamp", "state", "meter", "true_rms", "note"),
}
_RENAMED = {"treatment": "rectification"}
_MODELS = {"records.reading": "records.readingafter", "records.taken": "records.readingbefore"}


def _inputs(model, fields):
    return {_RENAMED.get(name, name): fields[name] for name in _COLUMNS[model] if name in fields}


def _sheet(take_in):
    sheet = dict(take_in or {})
    if "worth" in sheet:
        sheet["feasibility"] = sheet.pop("worth")
    return sheet


def _row(row):
    """A snapshot of the journal in the new form."""
    model = row["model"].removeprefix("records.")
    if model not in _COLUMNS or "inputs" in row["fields"]:
        return row
    fields = {name: value for name, value in row["fields"].items() if name not in _COLUMNS[model]}
    fields["inputs"] = _inputs(model, row["fields"])
    if "take_in" in fields:
        fields["take_in"] = _sheet(fields["take_in"])
    return {**row, "model": _MODELS.get(row["model"], row["model"]), "fields": fields}


def forwards(apps, schema_editor):
    alias = schema_editor.connection.alias
    for model in _COLUMNS:
        for record in apps.get_model("records", model).objects.using(alias).iterator():
            record.inputs = _inputs(model, {name: getattr(record, name) for name in _COLUMNS[model]})
            if model == "equipment":
                record.take_in = _sheet(record.take_in)
            record.save()
    for change in apps.get_model("records", "Change").objects.using(alias).iterator():
        change.before = [_row(r) for r in change.before]
        change.after = [_row(r) for r in change.after]
        change.save()


class Migration(migrations.Migration):
    dependencies = [("records", "0003_drivers")]

    operations = [
        *(
            migrations.AddField(model, "inputs", models.JSONField(default=dict))
            for model in ("equipment", "rail", "position", "reading", "taken")
        ),
        migrations.RunPython(forwards, migrations.RunPython.noop),
        *(
            migrations.RemoveField(model, name)
            for model, names in _COLUMNS.items()
            for name in names
        ),
        migrations.RenameModel("Reading", "ReadingAfter"),
        migrations.RenameModel("Taken", "ReadingBefore"),
        migrations.AlterField(
            "readingafter", "position",
            models.ForeignKey(on_delete=models.CASCADE, to="records.position", related_name="readings_after"),
        ),
        migrations.AlterField(
            "readingbefore", "position",
            models.ForeignKey(on_delete=models.CASCADE, to="records.position", related_name="readings_before"),
        ),
    ]
