"""Jobs that were given to the wire machine, and what became of each piece."""

from django.conf import settings
from django.db import models

from jolly_server.projects.models import ProjectRow


class CutJob(models.Model):
    """A job for the machine. It is stored before it is sent, so that nothing is lost when the machine is away."""

    id = models.CharField(max_length=40, primary_key=True)
    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="+")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    wires = models.TextField()  # what is sent, JSON
    open = models.BooleanField(default=True)


class CutPiece(models.Model):
    """A piece of a project's cut list that was given to the machine, each once."""

    class State(models.TextChoices):
        WAITING = "waiting"
        DONE = "done"
        REFUSED = "refused"
        WITHDRAWN = "withdrawn"

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="+")
    piece = models.CharField(max_length=40)
    conductor = models.CharField(max_length=100)
    job = models.ForeignKey(CutJob, on_delete=models.CASCADE, related_name="pieces")
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    reasons = models.TextField(blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "piece"], name="each_piece_once")]
