"""The site as an application of its own, for its commands."""

from django.apps import AppConfig


class SiteConfig(AppConfig):
    """Named apart from Django's own application of sites."""

    name = "stillthread.site"
    label = "stillthread_site"
