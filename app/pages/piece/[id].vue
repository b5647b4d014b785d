<template><div>quay</div></template>
