#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""A phone for tests: Chromium at 360 pixels width on the phone page.

usage: phone.py URL FOLDER ORDER

ORDER is what the strip's colour order really is, as letters: the colour-order finder is answered as somebody who
sees the LEDs would. Writes pictures into FOLDER. Ends with status 0 if all was as it should be.
"""
import sys

from selenium import webdriver
from selenium.common.exceptions import StaleElementReferenceException
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

WAIT_S = 20


def browser():
    options = webdriver.ChromeOptions()
    for word in ("--headless=new", "--no-sandbox", "--disable-gpu", "--window-size=360,740", "--force-device-scale-factor=1"):
        options.add_argument(word)
    options.add_experimental_option("mobileEmulation", {"deviceMetrics": {"width": 360, "height": 740, "pixelRatio": 2}})
    return webdriver.Chrome(options=options)


def until(phone, condition, what):
    # What the page has just replaced is looked for anew.
    WebDriverWait(phone, WAIT_S, ignored_exceptions=[StaleElementReferenceException]).until(lambda p: condition(), what)


def pad(phone, name):
    for one in phone.find_elements(By.CSS_SELECTOR, "#pads button"):
        if one.text.strip() == name:
            return one
    return None


def play(phone, folder):
    until(phone, lambda: pad(phone, "Quiet rim"), "the pads are there")
    pad(phone, "Quiet rim").click()
    until(phone, lambda: pad(phone, "Quiet rim").get_attribute("aria-pressed") == "true", "the pad is lit")
    until(phone, lambda: phone.execute_script("return document.getElementById('light').naturalWidth") == 360,
          "the live picture is there")
    before = phone.find_element(By.ID, "light").get_attribute("src")
    until(phone, lambda: phone.find_element(By.ID, "light").get_attribute("src") != before, "the picture moves")
    phone.save_screenshot(f"{folder}/phone-looks.png")


def fade(phone, folder):
    phone.find_element(By.ID, "tab-levels").click()
    until(phone, lambda: len(phone.find_elements(By.CSS_SELECTOR, ".fader")) > 3, "the levels are there")
    row = [r for r in phone.find_elements(By.CSS_SELECTOR, ".fader") if "Canopy rim" in r.text][0]
    slider = row.find_element(By.TAG_NAME, "input")
    # As a hand does: Home and so many steps up.
    slider.send_keys("\ue011")
    for _ in range(40):
        slider.send_keys("\ue014")
    until(phone, lambda: row.find_element(By.TAG_NAME, "output").text == "40", "the level is 40")
    phone.save_screenshot(f"{folder}/phone-levels.png")


def press(phone, words):
    """Presses the answer that ends with these words."""
    def pressed():
        for one in phone.find_elements(By.CSS_SELECTOR, "#answers button"):
            if one.text.strip().lower().endswith(words):
                one.click()
                return True
        return False

    until(phone, pressed, f"the answer {words} is offered")


def find_order(phone, folder, order):
    """Answers the colour-order finder: on the n-th channel the LED shows the n-th letter of the
    order; beyond its end the next pixel lights."""
    phone.find_element(By.ID, "tab-bench").click()
    question = phone.find_element(By.ID, "question")
    answers = lambda: phone.find_elements(By.CSS_SELECTOR, "#answers button")
    until(phone, lambda: any("olour order" in a.text for a in answers()), "finders are offered")
    press(phone, "colour order")
    until(phone, lambda: any(a.text.strip().lower().endswith("red") for a in answers()), "a colour is asked for")
    phone.save_screenshot(f"{folder}/phone-bench.png")
    names = {"R": "red", "G": "green", "B": "blue", "W": "white"}
    places = {"first": 0, "second": 1, "third": 2, "fourth": 3}
    for _ in range(6):
        words = question.text.lower()
        place = next((n for word, n in places.items() if word in words), None)
        if place is None:
            break
        wanted = names[order[place]] if place < len(order) else "second pixel"
        before = question.text
        press(phone, wanted)
        until(phone, lambda: question.text != before, "the next question")
    until(phone, lambda: len(answers()) == 1, "the end is offered")
    press(phone, "")
    until(phone, lambda: "found" in question.text, "the finder is done")


def send_video(phone, folder):
    """Sends three parts and a bit; what it is made of is for the camera to say."""
    path = f"{folder}/filmed.mp4"
    with open(path, "wb") as film:
        film.write(bytes(3 * (1 << 20) + 17))
    phone.find_element(By.ID, "video").send_keys(path)
    words = phone.find_element(By.ID, "videoState")
    until(phone, lambda: "The computer has it" in words.text, "the video is there")
    assert not phone.find_element(By.ID, "sent").is_displayed()


def speak(phone):
    """The page in the other language of the window, and back; no word gets lost."""
    said = """
        const seen = () => [document.documentElement.lang, $('tab-looks').textContent, $('light').alt,
                            say('%1 phones', 2), document.querySelector('[data-port="1"]').ariaLabel,
                            $('pads').innerText];
        const before = seen();
        translate('es');
        const spanish = seen();
        translate('en');
        return [before, spanish, seen()];
    """
    before, spanish, after = phone.execute_script(said)
    assert before[:3] == ["en", "Looks", "The light as it is now"], before
    assert spanish[:5] == ["es", "Ambientes", "La luz tal como está ahora", "2 teléfonos", "El puerto siguiente"], spanish
    assert spanish[5] == before[5], "names are in no language"
    assert after == before, after


def refuse_strangers(url, folder):
    stranger = browser()
    try:
        stranger.get(url.split("#")[0] + "#" + "0" * 32)
        WebDriverWait(stranger, WAIT_S).until(
            lambda p: p.find_element(By.ID, "refused").is_displayed(), "a stranger is refused")
        assert not stranger.find_elements(By.CSS_SELECTOR, "#pads button")
        stranger.save_screenshot(f"{folder}/phone-refused.png")
    finally:
        stranger.quit()


def main():
    url, folder, order = sys.argv[1:4]
    phone = browser()
    try:
        phone.get(url)
        play(phone, folder)
        fade(phone, folder)
        find_order(phone, folder, order)
        send_video(phone, folder)
        speak(phone)
        assert phone.execute_script("return document.documentElement.scrollWidth") <= 360, "wider than the phone"
        refused = [e for e in phone.get_log("browser") if e["level"] == "SEVERE"]
        assert not refused, refused
    except Exception:
        phone.save_screenshot(f"{folder}/phone-failed.png")
        print("the browser's console:", phone.get_log("browser"))
        raise
    finally:
        phone.quit()
    refuse_strangers(url, folder)


main()
