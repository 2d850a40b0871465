from django.db import migrations, models
from django.utils import timezone


def mark_what_is_a_demo(apps, schema_editor):
    """A database that the demo was loaded into before there was a mark gets it now."""
    if apps.get_model("accounts", "Angler").objects.filter(is_demo=True).exists():
        apps.get_model("accounts", "DemoMark").objects.create(made_at=timezone.now())


class Migration(migrations.Migration):
    dependencies = [("accounts", "0002_plan_settings")]

    operations = [
        migrations.CreateModel(
            name="DemoMark",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("made_at", models.DateTimeField()),
            ],
        ),
        migrations.RunPython(mark_what_is_a_demo, migrations.RunPython.noop),
    ]
