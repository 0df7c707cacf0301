"""Papers over HTTP."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router

from config.downloads import CSV, JSON, PDF, a_file, download
from jobs.asked import ending_job, job_of, job_with_both, job_with_original, planned_job
from jobs.papers import summary
from jobs.papers.customer import customer_pdf
from jobs.papers.label import label_pdf
from jobs.papers.plan import plan_json, plan_pdf, tags_pdf, wires_csv
from jobs.papers.printed import sheet_pdf
from jobs.papers.sheet import sheet_document
from jobs.sheets import SheetId

router = Router(tags=["papers"])


@router.get("/jobs/{job_id}/summary.pdf", openapi_extra=a_file(PDF))
def summary_pdf(request: HttpRequest, job_id: SheetId) -> HttpResponse:
    """One page about a board that nobody recognised yet, to send to the depot."""
    job = job_of(request, job_id)
    return download(summary.summary_pdf(job, timezone.now()), PDF, f"{job.code}-summary.pdf")


@router.get("/jobs/{job_id}/reasoning.pdf", openapi_extra=a_file(PDF))
def reasoning_pdf(request: HttpRequest, job_id: SheetId) -> HttpResponse:
    """The chain of reasoning, printed."""
    job = job_of(request, job_id)
    return download(summary.reasoning_pdf(job, timezone.now()), PDF, f"{job.code}-reasoning.pdf")


@router.get("/jobs/{job_id}/plan.json", response={200: Any})
def plan_as_json(request: HttpRequest, job_id: SheetId) -> HttpResponse:
    """The whole plan as plain data."""
    job = job_with_both(request, job_id)
    return download(plan_json(job).encode(), JSON, f"{job.code}.plan.json")


@router.get("/jobs/{job_id}/plan.csv", openapi_extra=a_file(CSV))
def plan_as_csv(request: HttpRequest, job_id: SheetId) -> HttpResponse:
    """The wiring plan for a spreadsheet."""
    job = job_with_both(request, job_id)
    return download(wires_csv(job).encode(), CSV, f"{job.code}.wires.csv")


@router.get("/jobs/{job_id}/plan.pdf", openapi_extra=a_file(PDF))
def plan_as_pdf(request: HttpRequest, job_id: SheetId) -> HttpResponse:
    """The plan as one sheet."""
    job = job_with_both(request, job_id)
    return download(plan_pdf(job, timezone.now()), PDF, f"{job.code}.plan.pdf")


@router.get("/jobs/{job_id}/tags.pdf", openapi_extra=a_file(PDF))
def tags_as_pdf(request: HttpRequest, job_id: SheetId) -> HttpResponse:
    """Tags for the wires."""
    job = job_with_original(request, job_id)
    return download(tags_pdf(job, timezone.now()), PDF, f"{job.code}.tags.pdf")


@router.get("/jobs/{job_id}/label.pdf", openapi_extra=a_file(PDF))
def label(request: HttpRequest, job_id: SheetId) -> HttpResponse:
    """The cabinet label, 62 by 100 mm."""
    job = planned_job(request, job_id)
    return download(label_pdf(job), PDF, f"{job.code}.label.pdf")


@router.get("/jobs/{job_id}/customer.pdf", openapi_extra=a_file(PDF))
def customer_page(request: HttpRequest, job_id: SheetId, paper: str = "A4") -> HttpResponse:
    """The customer's page, in plain words."""
    job = ending_job(request, job_id)
    return download(customer_pdf(job, paper, timezone.now()), PDF, f"{job.code}.customer.pdf")


@router.get("/jobs/{job_id}/sheet.json", response={200: Any})
def sheet_json(request: HttpRequest, job_id: SheetId) -> HttpResponse:
    """The job sheet in the product's own format."""
    job = job_of(request, job_id)
    return download(sheet_document(job).encode(), JSON, f"{job.code}.job.json")


@router.get("/jobs/{job_id}/sheet.pdf", openapi_extra=a_file(PDF))
def sheet_as_pdf(request: HttpRequest, job_id: SheetId, paper: str = "A4") -> HttpResponse:
    """The job sheet for the office, on A4 or letter paper."""
    job = job_of(request, job_id)
    return download(sheet_pdf(job, timezone.now(), paper), PDF, f"{job.code}.pdf")
