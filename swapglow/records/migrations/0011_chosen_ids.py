"""Options of circuits that were stored by their words on screen are stored by their ids."""

from django.db import migrations

from swapglow.inputs.earlier_choices import chosen_id


def by_id(apps, schema_editor):
    Equipment = apps.get_model("records", "Equipment")
    for e in Equipment.objects.using(schema_editor.connection.alias):
        circuits = e.inputs.get("fitted") or {}
        words = {k: c.get("chosen") for k, c in circuits.items() if isinstance(c, dict) and c.get("chosen")}
        ids = {k: chosen_id(str(circuits[k].get("kind", "")), str(text)) for k, text in words.items()}
        if ids != words:
            for key, chosen in ids.items():
                circuits[key]["chosen"] = chosen
            e.inputs = {**e.inputs, "fitted": circuits}
            e.save(update_fields=["inputs"])


class Migration(migrations.Migration):
    dependencies = [("records", "0010_author")]
    operations = [migrations.RunPython(by_id, migrations.RunPython.noop, elidable=True)]
