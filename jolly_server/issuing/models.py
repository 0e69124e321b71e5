"""What issuing keeps beside the project: recipes for all, frozen revisions, and what was ticked at the bench."""

from django.conf import settings
from django.db import models

from jolly_server.projects.models import ProjectRow


class SharedRecipe(models.Model):
    """A recipe kept for all projects; `data` is its record without an id, as JSON."""

    id = models.CharField(max_length=40, primary_key=True)
    name = models.CharField(max_length=200, unique=True)
    data = models.TextField()


class FrozenRevision(models.Model):
    """A project as it was when a revision was frozen.

    `revision_id` is the id of its record in the project. `file` is the project file, compressed; `papers` the zip that
    was issued, empty until it is made; `digests` the SHA-256 of each of its files as JSON.
    """

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="+")
    revision_id = models.CharField(max_length=40)
    index = models.CharField(max_length=200)
    at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    file = models.BinaryField()
    papers = models.BinaryField(default=b"")
    digests = models.TextField(default="{}")
    run = models.CharField(max_length=40, blank=True, default="")  # that makes its papers
    opened_as = models.CharField(max_length=40, blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "revision_id"], name="one_frozen_revision")]


class JobDone(models.Model):
    """A job of a work list that was done at the bench: which one, by its words, and who ticked it when."""

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="+")
    since = models.CharField(max_length=40)
    job = models.CharField(max_length=64)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "since", "job"], name="each_job_done_once")]
